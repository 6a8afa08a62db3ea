import type { Item } from '../document/item.ts';
import { isLeftOver } from '../edits/left-over.ts';
import { type Box, boxAt, numbersOfBoxes } from '../geometry/paths/box.ts';
import { type Polyline, signedArea } from '../geometry/paths/flatten.ts';
import { nestOutlines } from '../geometry/questions/nesting.ts';
import { separates } from '../operations/operations.ts';
import type { BurnLine } from './order.ts';
import type { PreparedJob, PreparedLayer } from './prepare.ts';
import { linesOf } from './step-draft.ts';

/** The layers that cut in this run. */
export function cutLayers({ layers }: PreparedJob): PreparedLayer[] {
  return layers.filter(({ layer, burns }) => burns && separates(layer.operation));
}

/**
 * Lines that are cut, and how each lies in others, by the place of the line. They are lists of numbers, so that a check
 * of thousands of lines need not look at each line.
 */
export interface NestedLines {
  readonly lines: readonly BurnLine[];
  /** The item that each is of, and which of its outlines it is. */
  readonly items: readonly Item[];
  readonly subpaths: Uint32Array;
  /** The place of the line's layer among those that were asked for. */
  readonly layerIndices: Uint32Array;
  /** Its bounds as drawn, four numbers each. */
  readonly boxes: Float64Array;
  /** Whether it is closed, 0 or 1. */
  readonly closed: Uint8Array;
  /** In how many others it lies. */
  readonly depths: Int32Array;
  /** The places of the lines that hold it. */
  readonly holders: readonly (readonly number[])[];
  /** The place of the nearest of them; -1 where it lies in none. */
  readonly parents: Int32Array;
  /** Whether it lies on an earlier one, 0 or 1. */
  readonly twins: Uint8Array;
}

/**
 * Every line of some layers as they are drawn, with its layer's place among them, and which of the others hold it. What
 * is drawn twice lies as deep as it does once, so that both are cut on the same side.
 */
export function nestedLines(prepared: PreparedJob, layers: readonly PreparedLayer[]): NestedLines {
  const all = known.get(prepared) ?? [];
  const found = all.find(
    (entry) => entry.layers.length === layers.length && entry.layers.every((layer, i) => layer === layers[i]),
  );
  if (found) return found.nested;
  const nested = nest(prepared, layers);
  known.set(prepared, [...all, { layers, nested }]);
  return nested;
}

/** The places of lines that are shapes of their own: not what is open, drawn twice, or too small to be one. */
export function outlinePlaces({ boxes, closed, twins }: NestedLines): number[] {
  const places: number[] = [];
  for (let i = 0; i < closed.length; i++) {
    if (closed[i] === 1 && twins[i] === 0 && !isLeftOver(boxAt(boxes, i))) places.push(i);
  }
  return places;
}

/** What the plan has found out, the checks need not. */
const known = new WeakMap<PreparedJob, { layers: readonly PreparedLayer[]; nested: NestedLines }[]>();

const nobody: readonly number[] = [];

function nest(prepared: PreparedJob, layers: readonly PreparedLayer[]): NestedLines {
  const ofEach = layers.map((layer) => linesOf(prepared, layer));
  const lines = ofEach.flat();
  const layerIndices = Uint32Array.from(ofEach.flatMap((some, i) => some.map(() => i)));
  const found = nestOutlines(lines.map(({ line }) => line));
  const names = new Map<number, string>();
  const nameOf = (i: number): string => {
    const name = names.get(i) ?? twinName(lines[i].line, found.boxes[i]);
    names.set(i, name);
    return name;
  };
  const twins = new Uint8Array(lines.length);
  const holders = found.holders.map((all, i) => {
    if (all.length === 0) return nobody;
    const met = new Set([nameOf(i)]);
    const around = all.filter((holder) => !met.has(nameOf(holder)) && met.add(nameOf(holder)));
    twins[i] = all.some((holder) => nameOf(holder) === nameOf(i)) ? 1 : 0;
    return around;
  });
  // The nearest holder is the one that lies in all the others.
  const parents = Int32Array.from(
    holders,
    (around) => around.find((holder) => holders[holder].length === around.length - 1) ?? -1,
  );
  return {
    lines,
    items: lines.map(({ item }) => item),
    subpaths: Uint32Array.from(lines, ({ nth }) => nth),
    layerIndices,
    boxes: numbersOfBoxes(found.boxes, (box) => box),
    closed: Uint8Array.from(lines, ({ line }) => (line.closed ? 1 : 0)),
    depths: Int32Array.from(holders, ({ length }) => length),
    holders,
    parents,
    twins,
  };
}

/** The same for outlines that lie on each other, by their bounds and what they enclose, to 0.01 mm. */
function twinName(line: Polyline, { minX, minY, maxX, maxY }: Box): string {
  return [minX, minY, maxX, maxY, Math.sqrt(Math.abs(signedArea(line)))].map((value) => value.toFixed(2)).join(' ');
}
