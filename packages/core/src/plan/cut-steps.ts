import { beamSide, isBurntAsDrawn, kerfLines } from '../fit/kerf.ts';
import { tabPoints } from '../fit/tabs.ts';
import { polylineContains } from '../geometry/paths/flatten.ts';
import { tabsOnLine } from './held.ts';
import { type NestedLines, nestedLines } from './nested-lines.ts';
import type { BurnLine } from './order.ts';
import type { PreparedJob } from './prepare.ts';
import { withEdgesOnce } from './shared-edges.ts';
import { type Burning, lineStep, nearestNode, type StepDraft } from './step-draft.ts';
import { tabGaps } from './tabs.ts';

/** Orders in which a cut layer is one step, because inside and outside alternate in it. */
const whole: ReadonlySet<string> = new Set(['nearest', 'parts', 'rows', 'as-drawn', 'by-hand']);

/**
 * Cut layers as steps: what lies in others first, the innermost before what holds it whatever their layers, then the
 * outside edges. Layers whose order mixes inside and outside are one step among the outside edges.
 */
export function cutSteps(prepared: PreparedJob, cuts: readonly Burning[]): StepDraft[] {
  // What lies in what is seen in the drawing; what burns is the path of the beam at its side.
  const nested = nestedLines(
    prepared,
    cuts.map(({ layer }) => layer),
  );
  const places = cuts.map((cut, i) => placeAmong(cut, i, nested));
  const beams = nested.lines.flatMap((line, i) => {
    const [cut, depth] = [cuts[nested.layerIndices[i]], nested.depths[i]];
    return beamLines(prepared, cut, line, depth).map((path) => ({ cut, line: path, depth }));
  });
  const all = cuts.flatMap((cut) => {
    const own = beams.filter((beam) => beam.cut === cut);
    if (cut.layer.burning.sharedEdges === 'each') return own;
    const depthOf = new Map(own.map(({ line, depth }) => [lineName(line), depth]));
    return withEdgesOnce(own.map(({ line }) => line)).map((line) => ({
      cut,
      line,
      depth: depthOf.get(lineName(line)) ?? 0,
    }));
  });
  const depths = Int32Array.from(all, ({ depth }) => depth);
  const deepest = depths.reduce((most, depth) => Math.max(most, depth), 0);
  const linesAt = (cut: Burning, depth: number) =>
    all.flatMap((entry, i) => (entry.cut === cut && depths[i] === depth ? [entry.line] : []));
  const split = cuts.filter((_, i) => places[i] === 'split');

  // A layer's inner lines are one step as long as no other layer's have to come between them.
  const inner: { cut: Burning; byDepth: BurnLine[][] }[] = [];
  for (let depth = deepest; depth > 0; depth--) {
    const last = inner[inner.length - 1]?.cut;
    const here = split.toSorted((a, b) => Number(b === last) - Number(a === last));
    for (const cut of here) {
      const lines = linesAt(cut, depth);
      if (lines.length === 0) continue;
      const before = inner[inner.length - 1];
      if (before?.cut === cut) before.byDepth[depth] = lines;
      else {
        const byDepth: BurnLine[][] = [];
        byDepth[depth] = lines;
        inner.push({ cut, byDepth });
      }
    }
  }
  const innerSteps = joinedWhereFree(inner).map(({ cut, byDepth }, i, steps) => {
    const nth = steps.slice(0, i).filter((step) => step.cut === cut).length;
    return lineStep(prepared, cut, 'inner', filledUp(byDepth), nth);
  });
  const wholeStep = (cut: Burning) =>
    lineStep(
      prepared,
      cut,
      'all',
      Array.from({ length: deepest + 1 }, (_, depth) => linesAt(cut, depth)),
    );
  const within = cuts.filter((_, i) => places[i] === 'within');
  const others = cuts.filter((_, i) => places[i] !== 'within');
  const outerSteps = others.map((cut) =>
    split.includes(cut) ? lineStep(prepared, cut, 'outer', [linesAt(cut, 0)]) : wholeStep(cut),
  );
  return [...within.map(wholeStep), ...innerSteps, ...outerFirstInside(outerSteps, others, all, depths)];
}

/** Orders that keep what lies in an outline before it: they may be told to burn in two steps. */
const keepsContents: ReadonlySet<string> = new Set(['nearest', 'parts', 'rows']);

/**
 * How a cut layer stands to the others: `split` burns what lies in others first and the outside edges last. One that
 * burns as a whole goes before the others where it only lies `within` them, and after those where it does not. One that
 * both lies in others and holds some of theirs can do neither, and is split.
 */
function placeAmong(
  { layer }: Burning,
  index: number,
  { layerIndices, holders }: NestedLines,
): 'split' | 'within' | 'after' {
  const { order } = layer.burning;
  if (!whole.has(order)) return 'split';
  if (!keepsContents.has(order)) return 'after';
  const isOwn = (i: number) => layerIndices[i] === index;
  const liesIn = holders.some((around, i) => isOwn(i) && around.some((holder) => !isOwn(holder)));
  const holds = holders.some((around, i) => !isOwn(i) && around.some(isOwn));
  if (liesIn && holds) return 'split';
  return liesIn ? 'within' : 'after';
}

/**
 * The path of the beam along a line, at half the kerf from it, unlit where tabs hold; where the line was told to start,
 * near there.
 */
function beamLines({ job }: PreparedJob, { layer, settings }: Burning, line: BurnLine, depth: number): BurnLine[] {
  const side = beamSide(line.item, line.nth, depth, layer.burning.keep);
  const { kerfMm } = settings;
  const paths = isBurntAsDrawn(line.line, side, kerfMm) ? [line.line] : kerfLines(line.item, line.nth, side, kerfMm);
  const tabs = tabsOnLine(job, settings, line);
  if (paths[0] === line.line && tabs.length === 0) return [line];
  const held = tabPoints(line.item, line.nth, tabs);
  return paths.map((path) => {
    const gaps = tabGaps(path, held, settings.tabWidthMm, settings.kerfMm);
    if (line.start === null || path === line.line) return { ...line, line: path, gaps };
    const place = { x: line.line.points[2 * line.start], y: line.line.points[2 * line.start + 1] };
    return { ...line, line: path, gaps, start: nearestNode(path.points, place) };
  });
}

/** The same for what is left of one line. */
function lineName({ item, nth }: BurnLine): string {
  return `${nth} ${item.id}`;
}

function filledUp(byDepth: BurnLine[][]): BurnLine[][] {
  return Array.from(byDepth, (group) => group ?? []);
}

/** Inner steps of one layer put together, where no line of a step between them holds or is held by what would move. */
function joinedWhereFree(inner: readonly { cut: Burning; byDepth: BurnLine[][] }[]) {
  const out: { cut: Burning; byDepth: BurnLine[][] }[] = [];
  for (const step of inner) {
    const home = out.findLastIndex(({ cut }) => cut === step.cut);
    const between = home < 0 ? [] : out.slice(home + 1).flatMap(({ byDepth }) => byDepth.flat().filter(Boolean));
    const own = step.byDepth.flat().filter(Boolean);
    // Moving it forwards is safe when it holds nothing that burns between.
    const holds = own.some(({ line }) =>
      between.some((other) => line.closed && polylineContains(line, other.line.points[0], other.line.points[1])),
    );
    if (home < 0 || holds) out.push({ cut: step.cut, byDepth: [...step.byDepth] });
    else {
      step.byDepth.forEach((lines, depth) => {
        out[home].byDepth[depth] = lines;
      });
    }
  }
  return out;
}

/** Layers that burn whole come after those with a line in theirs, deepest first. */
function outerFirstInside(
  steps: readonly StepDraft[],
  cuts: readonly Burning[],
  all: readonly { cut: Burning }[],
  depths: Int32Array,
): StepDraft[] {
  const shallowest = cuts.map((cut) =>
    all.reduce((least, entry, i) => (entry.cut === cut ? Math.min(least, depths[i]) : least), Number.MAX_SAFE_INTEGER),
  );
  // Only layers that burn whole can lie in others here; the others' lines are all outermost.
  return steps
    .map((step, i) => ({ step, depth: shallowest[i] === Number.MAX_SAFE_INTEGER ? 0 : shallowest[i] }))
    .toSorted((a, b) => (a.step.part === 'all' || b.step.part === 'all' ? b.depth - a.depth : 0))
    .map(({ step }) => step);
}
