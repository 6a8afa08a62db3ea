import { converter, differenceCiede2000, parse } from 'culori';
import { colour } from '../document/fields.ts';
import type { Colour } from '../document/item.ts';
import { type PaintPart, paintPart } from '../document/job.ts';
import { type Layer, layerSchema } from '../document/layer.ts';
import { operationOf, operations } from '../operations/operations.ts';
import { Mismatch, optional, orNull, such, type ValueOf } from '../schema/schema.ts';
import { list, record } from '../schema/structures.ts';
import { named, number, text } from '../schema/values.ts';

export type { Layer } from '../document/layer.ts';

/** Greys, by their lightness: 0 is black, 100 white, both ends included. */
const greys = such(record({ from: number(), to: number() }), ({ from, to }) =>
  from >= 0 && to <= 100 && from <= to ? null : new Mismatch('greys go from 0 (black) to 100 (white)', '', true),
);

/** One line of a colour key: a paint, and the layer it goes on. */
const rule = such(
  record({
    part: paintPart,
    /** Null stands for any colour. */
    colour: orNull(colour),
    /** How far off a colour may be, as CIEDE2000 over sRGB; 0 takes the very colour only. */
    tolerance: number(0, 100),
    /** Stroke widths the rule takes, in mm, both ends included; null for any. */
    minWidthMm: orNull(number()),
    maxWidthMm: orNull(number()),
    /** Greys it takes; any colour at all where nothing is said. */
    grey: optional(orNull(greys)),
    layerId: text,
  }),
  ({ minWidthMm: min, maxWidthMm: max }) =>
    min !== null && max !== null && min > max ? new Mismatch('the least width is more than the most', '', true) : null,
);
export type Rule = ValueOf<typeof rule>;

/** A key has no more rules, and no more layers. */
const mostRules = 500;

/** The list of rules that says which paints mean what. The first rule that fits a paint decides. */
export const keySchema = such(
  record({
    name: named(120),
    id: text,
    layers: list(layerSchema, { most: mostRules, each: (i) => `layer ${i + 1}` }),
    rules: list(rule, { most: mostRules, each: (i) => `rule ${i + 1}` }),
    /** Strokes wider than this, in mm, are areas to engrave and not lines to follow; null where width does not say so. */
    hairlineMm: optional(orNull(number())),
  }),
  ({ layers, rules }) => {
    const ids = new Set(layers.map(({ id }) => id));
    if (ids.size !== layers.length) return new Mismatch('two of its layers have one id', '', true);
    const lost = rules.findIndex(({ layerId }) => !ids.has(layerId));
    if (lost < 0) return null;
    return new Mismatch(`the key has no layer “${rules[lost].layerId}”`, `rule ${lost + 1}`, true, true);
  },
);
export type ColourKey = ValueOf<typeof keySchema>;

/** The key of a job; one that the shop no longer has is replaced by its first. `undefined` where it has none. */
export function keyInShop(keys: readonly ColourKey[], keyId: string): ColourKey | undefined {
  return keys.find(({ id }) => id === keyId) ?? keys[0];
}

/** The layers every job has, whatever its key. */
export function standardLayers(): Layer[] {
  return operations.map((operation) => ({ id: operation, name: operationOf(operation).name, operation }));
}

/**
 * The layers of a job under a key: the key's own, then those standard ones that it does not name, then the job's;
 * a layer of the job's with the id of another stands in its place.
 */
export function layersUnder(key: ColourKey, ofJob: readonly Layer[] = []): Layer[] {
  const own = new Set(key.layers.map((layer) => layer.id));
  const usual = [...key.layers, ...standardLayers().filter((layer) => !own.has(layer.id))];
  const known = new Set(usual.map((layer) => layer.id));
  const changed = usual.map((layer) => ofJob.find(({ id }) => id === layer.id) ?? layer);
  return [...changed, ...ofJob.filter(({ id }) => !known.has(id))];
}

/** One half of a paint. */
export interface Mark {
  readonly part: PaintPart;
  readonly colour: Colour;
  /** Stroke width in mm; null for fills. */
  readonly widthMm: number | null;
}

const difference = differenceCiede2000();

/** How different two `#RRGGBB` colours look: CIEDE2000, 0 for the same, about 1 just noticeable. */
export function colourDistance(a: Colour, b: Colour): number {
  if (a === b) return 0;
  return difference(parse(a) ?? a, parse(b) ?? b);
}

/** How far from grey a colour may be, as chroma in CIELAB, to count as one. */
const greyChroma = 8;

const toLab = converter('lab');

/** The lightness of a colour, 0 for black and 100 for white (CIELAB), and how far from grey it is. */
export function lightnessOf(colour: Colour): { lightness: number; chroma: number } {
  const { l, a, b } = toLab(colour) ?? { l: 0, a: 0, b: 0 };
  return { lightness: l, chroma: Math.hypot(a, b) };
}

function isGreyWithin(colour: Colour, { from, to }: { from: number; to: number }): boolean {
  const { lightness, chroma } = lightnessOf(colour);
  return chroma <= greyChroma && lightness >= from - 1e-6 && lightness <= to + 1e-6;
}

/** Whether a rule of a key means a mark: its part, width, greyness and colour. */
export function ruleFits(rule: Rule, mark: Mark): boolean {
  if (rule.part !== mark.part) return false;
  if (mark.widthMm !== null) {
    if (rule.minWidthMm !== null && mark.widthMm < rule.minWidthMm) return false;
    if (rule.maxWidthMm !== null && mark.widthMm > rule.maxWidthMm) return false;
  }
  if (rule.grey && !isGreyWithin(mark.colour, rule.grey)) return false;
  return rule.colour === null || colourDistance(rule.colour, mark.colour) <= rule.tolerance;
}

/** The layer the key puts a paint on, by its first rule that fits; null when none does. */
export function layerByKey(key: ColourKey, mark: Mark): string | null {
  return key.rules.find((rule) => ruleFits(rule, mark))?.layerId ?? null;
}

/** The key that reads our own operation colours, as strokes and as fills. */
export function operationColourKey(id: string, name: string): ColourKey {
  const parts: PaintPart[] = ['stroke', 'fill'];
  const rules = parts.flatMap((part) =>
    operations.map((operation) => ({
      part,
      colour: operationOf(operation).colour,
      tolerance: 1,
      minWidthMm: null,
      maxWidthMm: null,
      layerId: operation,
    })),
  );
  return { id, name, layers: standardLayers(), rules };
}
