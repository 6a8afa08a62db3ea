import { type Item, pathOf, polylinesOf } from '../document/item.ts';
import type { StartPoint } from '../document/job.ts';
import { beamSide, kerfLines } from '../fit/kerf.ts';
import { polylineContains } from '../geometry/paths/flatten.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { type Progress, partOf } from '../geometry/paths/progress.ts';
import { pointAt, subpathsOf } from '../geometry/paths/segments.ts';
import { nestDepths } from '../geometry/questions/nesting.ts';
import { bedBox } from '../machine/machine.ts';
import { fillsAreas, followsLines, operationOf, separates } from '../operations/operations.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { engravedFills } from './fill.ts';
import type { MoveList } from './moves.ts';
import { type BurnLine, burnLines } from './order.ts';
import type { PreparedJob, PreparedLayer } from './prepare.ts';
import { rasterFill, rasterTones } from './raster.ts';

/** Which of a layer's lines a step burns: all, or of a cut those that lie in others, or the rest. */
export type StepPart = 'all' | 'inner' | 'outer';

/** A step before it is moves: what it burns, and how its moves are made. */
export interface StepDraft {
  /** By which the operator's order names it: its layer, and which part of that. */
  readonly id: string;
  readonly layer: PreparedLayer;
  readonly settings: LayerSettings;
  readonly part: StepPart;
  /** Makes the moves, and tells how many of them are made. @returns the lines in the order they burn, and whether a run-up was cut short */
  readonly fill: (
    list: MoveList,
    progress?: Progress,
  ) => { readonly burnt: readonly BurnLine[]; readonly runUpShort: boolean };
}

interface Burning {
  readonly layer: PreparedLayer;
  readonly settings: LayerSettings;
}

/** Orders in which a cut layer is one step, because inside and outside alternate in it. */
const whole: ReadonlySet<string> = new Set(['nearest', 'parts', 'rows', 'as-drawn', 'by-hand']);

/**
 * The steps of a run in the usual order: by the phases of their operations, so engraving, then scores, then cuts; of
 * cuts those that lie in others (the innermost first, over all layers), then the outside edges. Layers of one kind go
 * by their rank, then as their key has them. Layers that are off, or cannot burn, are left out (see
 * `PreparedLayer.burns`).
 */
export function draftSteps(prepared: PreparedJob): StepDraft[] {
  const burning = prepared.layers.flatMap((layer): Burning[] =>
    layer.burns && layer.applied.settings ? [{ layer, settings: layer.applied.settings }] : [],
  );
  const inOrder = burning.toSorted((a, b) => phaseOf(a) - phaseOf(b) || rankOf(a) - rankOf(b));
  const phases = [...new Set(inOrder.map(phaseOf))];
  return phases.flatMap((phase) => {
    const now = inOrder.filter((entry) => phaseOf(entry) === phase);
    return [
      ...now.filter(({ layer }) => fillsAreas(layer.layer.operation)).map((entry) => engraveStep(prepared, entry)),
      ...now
        .filter(({ layer: { layer } }) => followsLines(layer.operation) && !separates(layer.operation))
        .map((entry) => lineStep(prepared, entry, 'all', [linesOf(prepared, entry.layer)])),
      ...cutSteps(
        prepared,
        now.filter(({ layer }) => separates(layer.layer.operation)),
      ),
    ];
  });
}

function phaseOf({ layer }: Burning): number {
  return operationOf(layer.layer.operation).burning?.phase ?? 0;
}

function rankOf({ layer }: Burning): number {
  return layer.layer.rank ?? Number.MAX_SAFE_INTEGER;
}

function engraveStep(prepared: PreparedJob, { layer, settings }: Burning): StepDraft {
  const { machine } = prepared;
  return {
    id: `${layer.id} all`,
    layer,
    settings,
    part: 'all',
    fill: (list, progress) => {
      let runUpShort = false;
      const fills = engravedFills(prepared, layer);
      const pictures = picturesOn(prepared, layer);
      const parts = fills.length + (pictures.length > 0 ? 1 : 0);
      fills.forEach(({ power, pieces }, i) => {
        list.power = power;
        const part = partOf(progress, i / parts, (i + 1) / parts);
        const short = rasterFill(list, pieces, settings, machine.acceleration, bedBox(machine), part);
        runUpShort = runUpShort || short;
      });
      if (pictures.length > 0) {
        const part = partOf(progress, fills.length / parts, 1);
        const short = rasterTones(list, pictures, settings, machine.acceleration, bedBox(machine), part);
        runUpShort = runUpShort || short;
      }
      return { burnt: [], runUpShort };
    },
  };
}

/** @throws RangeError where the pixels of a picture are not at hand: it must not be left out in silence */
function picturesOn({ pixelsOf }: PreparedJob, { placed }: PreparedLayer) {
  return placed.flatMap(({ item: { shape, matrix } }) => {
    if (shape.kind !== 'picture') return [];
    const pixels = pixelsOf(shape.pictureId);
    if (!pixels) throw new RangeError(`planJob: the picture ${shape.pictureId} burns, and its pixels are not at hand`);
    return [{ pixels, matrix }];
  });
}

function lineStep(
  { job }: PreparedJob,
  { layer, settings }: Burning,
  part: StepPart,
  byDepth: readonly (readonly BurnLine[])[],
  nth = 0,
): StepDraft {
  const how = { ...layer.burning, settings, numbered: job.numbered };
  return {
    id: `${layer.id} ${part}${nth > 0 ? ` ${nth + 1}` : ''}`,
    layer,
    settings,
    part,
    fill: (list, progress) => ({ burnt: burnLines(list, byDepth, how, progress), runUpShort: false }),
  };
}

/** Every line of what a layer burns, in drawing order. */
export function linesOf({ job }: PreparedJob, { placed }: PreparedLayer): BurnLine[] {
  return placed.flatMap(({ item }, place) => {
    const starts = job.starts.filter(({ itemId }) => itemId === item.id);
    return polylinesOf(item).map((line, i) => ({
      item,
      line,
      nth: i,
      place,
      start: startNode(item, line.points, starts, i),
    }));
  });
}

/** The node of a flattened outline that is nearest to where it was told to start. */
function startNode(item: Item, points: Float64Array, starts: readonly StartPoint[], outline: number): number | null {
  const start = starts.find(({ subpath }) => subpath === outline);
  const segments = start && [...subpathsOf(pathOf(item))][start.subpath]?.segments;
  if (!start || !segments) return null;
  const i = Math.min(Math.floor(start.at), segments.length - 1);
  return nearestNode(points, pointAt(segments[i], Math.min(1, start.at - i)));
}

function nearestNode(points: Float64Array, { x, y }: Point): number {
  let best = 0;
  for (let k = 0; k < points.length; k += 2) {
    if (Math.hypot(points[k] - x, points[k + 1] - y) < Math.hypot(points[best] - x, points[best + 1] - y)) best = k;
  }
  return best / 2;
}

/**
 * Cut layers as steps: what lies in others first, the innermost before what holds it whatever their layers, then the
 * outside edges. Layers whose order mixes inside and outside are one step among the outside edges.
 */
function cutSteps(prepared: PreparedJob, cuts: readonly Burning[]): StepDraft[] {
  // What lies in what is seen in the drawing; what burns is the path of the beam at its side.
  const all = nestedLines(
    prepared,
    cuts.map(({ layer }) => layer),
  ).flatMap(({ layerIndex, line, depth }) =>
    beamLines(cuts[layerIndex], line, depth).map((path) => ({ cut: cuts[layerIndex], line: path, depth })),
  );
  const depths = Int32Array.from(all, ({ depth }) => depth);
  const deepest = depths.reduce((most, depth) => Math.max(most, depth), 0);
  const linesAt = (cut: Burning, depth: number) =>
    all.flatMap((entry, i) => (entry.cut === cut && depths[i] === depth ? [entry.line] : []));
  const split = cuts.filter(({ layer }) => !whole.has(layer.burning.order));

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
  const outerSteps = cuts.map((cut) => {
    if (!whole.has(cut.layer.burning.order)) return lineStep(prepared, cut, 'outer', [linesAt(cut, 0)]);
    const byDepth = Array.from({ length: deepest + 1 }, (_, depth) => linesAt(cut, depth));
    return lineStep(prepared, cut, 'all', byDepth);
  });
  return [...innerSteps, ...outerFirstInside(outerSteps, cuts, all, depths)];
}

/** Every line of some layers, with its layer's place among them and in how many of the others it lies as they are drawn. */
export function nestedLines(
  prepared: PreparedJob,
  layers: readonly PreparedLayer[],
): { layerIndex: number; line: BurnLine; depth: number }[] {
  const lines = layers.flatMap((layer, layerIndex) => linesOf(prepared, layer).map((line) => ({ layerIndex, line })));
  const depths = nestDepths(lines.map(({ line }) => line.line));
  return lines.map((line, i) => ({ ...line, depth: depths[i] }));
}

/** The path of the beam along a line, at half the kerf from it; where the line was told to start, near there. */
function beamLines({ layer, settings }: Burning, line: BurnLine, depth: number): BurnLine[] {
  const side = beamSide(line.item, line.nth, depth, layer.burning.keep);
  const paths = kerfLines(line.item, line.nth, side, settings.kerfMm);
  if (paths[0] === line.line) return [line];
  return paths.map((path) => {
    if (line.start === null) return { ...line, line: path };
    const place = { x: line.line.points[2 * line.start], y: line.line.points[2 * line.start + 1] };
    return { ...line, line: path, start: nearestNode(path.points, place) };
  });
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

/**
 * Steps in the operator's order, where that names them; those it does not name follow the one that they usually do.
 */
export function inOperatorsOrder(steps: readonly StepDraft[], order: readonly string[]): StepDraft[] {
  if (order.length === 0) return [...steps];
  const byId = new Map(steps.map((step) => [step.id, step]));
  const out = order.flatMap((id) => byId.get(id) ?? []);
  steps.forEach((step, i) => {
    if (out.includes(step)) return;
    const before = i === 0 ? -1 : out.indexOf(steps[i - 1]);
    out.splice(before + 1, 0, step);
  });
  return out;
}
