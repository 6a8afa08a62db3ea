/** Where on the bed a run is placed: its bounds' point `u`, `v` at the mark or at the head, or as it was drawn. */
export type Landing =
  | { readonly kind: 'as-drawn' }
  | { readonly kind: 'mark' | 'head'; readonly u: number; readonly v: number };

/** One trip of the machine, burning what it is not told to leave out. */
export interface Run {
  readonly id: string;
  readonly name: string;
  /** Layers left out, by id. */
  readonly off: readonly string[];
  /** The only items that burn, by id; null for all on its layers. */
  readonly only: readonly string[] | null;
  /** Mirrored left and right about the middle of the sheet, which lies with its back up. */
  readonly mirrored: boolean;
  readonly landing: Landing;
  /** How the stock lies: as it came, with the holder of an earlier run still in place, or turned over. */
  readonly stock: 'fresh' | 'in place' | 'turned over';
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
