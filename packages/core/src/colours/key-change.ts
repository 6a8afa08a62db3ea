import type { Assignment, JobDocument } from '../document/job.ts';
import { deriveMeaning, type Meaning, type PaintUse } from './derive.ts';
import { type ColourKey, colourDistance, type Layer, type Rule } from './key.ts';

/** Items that would go from one layer to another; null stands for no layer. */
export interface LayerMove {
  readonly from: string | null;
  readonly to: string | null;
  readonly itemIds: readonly string[];
}

/** What another key would change in a job. */
export interface KeyChange {
  readonly moves: readonly LayerMove[];
  /** How many items would burn on the same layers as now. */
  readonly same: number;
  /** How many items would have a paint without meaning. */
  readonly undecided: number;
}

/** What a job would mean under another key, against what it means now; layers are named by their names. */
export function changeOfKey(job: JobDocument, from: ColourKey, to: ColourKey): KeyChange {
  const [before, after] = [deriveMeaning(job, from), deriveMeaning(job, to)];
  const [was, is] = [layerNames(before), layerNames(after)];
  const moves = new Map<string, { from: string | null; to: string | null; itemIds: string[] }>();
  let same = 0;
  for (const { id, hidden, shape } of job.drawing.items) {
    if (hidden || shape.kind === 'picture') continue;
    const [old, next] = [was.get(id) ?? null, is.get(id) ?? null];
    if (old === next) {
      same++;
      continue;
    }
    const name = `${old} → ${next}`;
    const move = moves.get(name) ?? { from: old, to: next, itemIds: [] };
    move.itemIds.push(id);
    moves.set(name, move);
  }
  return {
    moves: [...moves.values()].sort((a, b) => b.itemIds.length - a.itemIds.length),
    same,
    undecided: after.undecided.length,
  };
}

/** By item: the names of the layers it is on. */
function layerNames({ layers, placed }: Meaning): Map<string, string> {
  const names = new Map<string, string>();
  for (const { id, name } of layers) {
    for (const { item } of placed.get(id) ?? []) {
      const known = names.get(item.id);
      names.set(item.id, known ? `${known} and ${name}` : name);
    }
  }
  return names;
}

/** A rule that takes just one paint. */
export function ruleForPaint({ part, colour, widthMm }: Assignment | PaintUse, layerId: string, width: boolean): Rule {
  return {
    part,
    colour,
    tolerance: 1,
    minWidthMm: width ? widthMm : null,
    maxWidthMm: width ? widthMm : null,
    layerId,
  };
}

/**
 * A key that says by itself what a job was told by hand: a rule for each paint the job decided, before those of the
 * key it goes by, and the job's layers among the key's.
 */
export function keyFromJob(job: JobDocument, key: ColourKey, id: string, name: string): ColourKey {
  const { layers, paints } = deriveMeaning(job, key);
  const decided = paints.filter(({ byJob }) => byJob);
  // Width decides only where a colour means several things by it.
  const several = ({ part, colour, layerId }: PaintUse) =>
    paints.some((other) => other.part === part && other.colour === colour && other.layerId !== layerId);
  const rules = decided.map((use) => ruleForPaint(use, use.layerId as string, use.part === 'stroke' && several(use)));
  return { ...key, id, name, layers, rules: [...rules, ...key.rules] };
}

/**
 * A key that takes a colour as the one it was meant as: the rule's tolerance is widened to take it. Where that would be
 * more than half the way to another rule's colour, a rule of its own is put first instead.
 */
export function keyThatTakes(key: ColourKey, paint: PaintUse, layerId: string, ruleAt: number | null): ColourKey {
  const rule = ruleAt === null ? undefined : key.rules[ruleAt];
  if (rule?.colour) {
    const needed = Math.ceil(colourDistance(rule.colour, paint.colour) * 10) / 10;
    const own = rule.colour;
    const clear = key.rules.every(
      (other) =>
        other === rule ||
        other.colour === null ||
        other.part !== rule.part ||
        other.layerId === rule.layerId ||
        colourDistance(other.colour, own) > 2 * needed,
    );
    if (clear) {
      return { ...key, rules: key.rules.map((known) => (known === rule ? { ...rule, tolerance: needed } : known)) };
    }
  }
  return { ...key, rules: [ruleForPaint(paint, layerId, false), ...key.rules] };
}

/** Something about a key that is likely a mistake. */
export interface KeyTrouble {
  /** The rule concerned, by its place; null for the key as a whole. */
  readonly rule: number | null;
  readonly message: string;
}

/** What is likely wrong with a key: no rules, rules that never get their turn, rules to layers that are not there. */
export function keyTroubles(key: ColourKey): KeyTrouble[] {
  if (key.rules.length === 0) {
    return [{ rule: null, message: 'It has no rules yet: under it no colour means anything.' }];
  }
  const known = new Map<string, Layer>(key.layers.map((layer) => [layer.id, layer]));
  return key.rules.flatMap((rule, i): KeyTrouble[] => {
    const found: KeyTrouble[] = [];
    if (!known.has(rule.layerId)) found.push({ rule: i, message: 'Its layer is not there: choose one.' });
    const before = key.rules.findIndex((other, k) => k < i && covers(other, rule));
    if (before >= 0) {
      const contradicts = key.rules[before].layerId !== rule.layerId;
      found.push({
        rule: i,
        message: contradicts
          ? `Rule ${before + 1} takes the same paints first and puts them on another layer: this one never gets its turn.`
          : `Rule ${before + 1} says the same already.`,
      });
    }
    return found;
  });
}

/** Whether a rule takes every paint that another is for. */
function covers(a: Rule, b: Rule): boolean {
  if (a.part !== b.part) return false;
  const within = (low: number | null, high: number | null, otherLow: number | null, otherHigh: number | null) =>
    (low === null || (otherLow !== null && otherLow >= low)) &&
    (high === null || (otherHigh !== null && otherHigh <= high));
  if (!within(a.minWidthMm, a.maxWidthMm, b.minWidthMm, b.maxWidthMm)) return false;
  if (a.grey) return Boolean(b.grey && b.grey.from >= a.grey.from && b.grey.to <= a.grey.to && b.colour === a.colour);
  if (a.colour === null) return true;
  return b.colour !== null && colourDistance(a.colour, b.colour) + b.tolerance <= a.tolerance + 1e-9;
}
