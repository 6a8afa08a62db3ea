import { orNull, type ValueOf } from '../schema/schema.ts';
import { list, record, variants } from '../schema/structures.ts';
import { flag, number, oneOf, text } from '../schema/values.ts';

const ofBounds = { u: number(), v: number() };
const place = { x: number(), y: number() };

/**
 * Where on the bed a run is placed: as it was drawn; its bounds' point `u`, `v` at the mark, at the head, or at the same
 * point of the first sheet, `inset` mm within its edges; or with two marks of the drawing onto where they were touched on
 * the bed. Or it burns what lies on one sheet, which is laid for it alone, with the top left at `x`, `y` before it is turned.
 * In bed mm.
 */
const landing = variants('kind', {
  'as-drawn': {},
  mark: ofBounds,
  head: ofBounds,
  stock: { ...ofBounds, inset: number(0, 1000) },
  sheet: { sheetId: text, ...place },
  marks: {
    marks: list(record({ ...place, onBed: orNull(record(place)) }), { most: 2 }),
    /** Made larger or smaller as well, so that both marks come to lie where they were touched. */
    isScaled: flag,
  },
});
export type Landing = ValueOf<typeof landing>;

/** Where a run lands, in words that go on from “burns”. */
export const landingWords: Readonly<Record<Landing['kind'], string>> = {
  'as-drawn': 'as drawn',
  mark: 'at the mark',
  head: 'at the head',
  stock: 'at its sheet',
  sheet: 'on a sheet of its own',
  marks: 'by two points',
};

/** One trip of the machine, burning what it is not told to leave out. */
export const runSchema = record({
  id: text,
  name: text,
  /** Layers left out, by id. */
  off: list(text),
  /** The only items that burn, by id; null for all on its layers. */
  only: orNull(list(text)),
  /** Mirrored left and right about the middle of the sheet, which lies with its back up. */
  mirrored: flag,
  landing,
  /** How the stock lies: as it came, with the holder of an earlier run still in place, or turned over. */
  stock: oneOf(['fresh', 'in place', 'turned over']),
});
export type Run = ValueOf<typeof runSchema>;

/** A run by its id or name, the first where none is wanted; nothing where there is no such run. */
export function findRun(runs: readonly Run[], wanted: string | undefined): Run | undefined {
  return wanted === undefined ? runs[0] : runs.find(({ id, name }) => id === wanted || name === wanted);
}

/** The run whose stock another one takes as it leaves it; null where there is none. */
export function runBefore(runs: readonly Run[], run: Run): Run | null {
  return run.stock === 'fresh' ? null : (runs[runs.indexOf(run) - 1] ?? null);
}

export const firstRun: Run = {
  id: 'run-1',
  name: 'Run 1',
  off: [],
  only: null,
  mirrored: false,
  landing: { kind: 'as-drawn' },
  stock: 'fresh',
};
