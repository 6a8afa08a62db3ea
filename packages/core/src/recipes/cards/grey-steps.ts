import type { LaidCard } from '../../document/card.ts';
import { burnsPictures } from '../../operations/operations.ts';
import type { BurntGrey } from '../../settings/burnt-greys.ts';
import type { CardCell, TestCard } from './test-card.ts';

/** A grey of a card: how much of black it asks for, and how dark it is on the card, in per cent. */
export interface GreyStep {
  readonly cell: CardCell;
  readonly askedPercent: number;
  /** Null where nobody knows. */
  readonly darkPercent: number | null;
}

/** Whether a card has greys from which a tone curve can be read. */
export function hasGreySteps({ wish: { operation, across } }: Pick<LaidCard, 'wish'>): boolean {
  return across.setting === 'greyPercent' && burnsPictures(operation);
}

/**
 * The greys in a row of a card, from the lightest to the darkest.
 * @param seen how dark a cell is in a picture of the card, 0 to 1; null where there is none. What was typed goes before.
 */
export function greySteps(
  { darks }: Pick<LaidCard, 'darks'>,
  { cells, columns }: Pick<TestCard, 'cells' | 'columns'>,
  row: number,
  seen: (cell: CardCell) => number | null,
): GreyStep[] {
  return cells
    .filter((cell) => cell.row === row)
    .toSorted((a, b) => columns[a.column] - columns[b.column])
    .map((cell) => {
      const share = darks?.[cell.key] === undefined ? seen(cell) : null;
      const darkPercent = darks?.[cell.key] ?? (share === null ? null : Math.round(1000 * share) / 10);
      return { cell, askedPercent: columns[cell.column], darkPercent };
    });
}

/** A curve takes as many greys at least. */
const fewestSteps = 3;

/**
 * The tone curve that grey steps show: how dark each came out between bare and the darkest of them. Steps that came out
 * lighter than one before them are as dark as that together (pool adjacent violators: Ayer and others, 1955).
 * @returns null where too few are known, or none is darker than bare
 */
export function burntGreysOf(steps: readonly GreyStep[]): BurntGrey[] | null {
  const known = steps.flatMap(({ askedPercent, darkPercent }) =>
    darkPercent === null || askedPercent <= 0 ? [] : [{ asked: askedPercent / 100, dark: darkPercent / 100 }],
  );
  if (known.length < fewestSteps) return null;
  const rising = risingMeans(known.map(({ dark }) => dark));
  const darkest = rising.at(-1) ?? 0;
  if (!(darkest > 0)) return null;
  return known.map(({ asked }, i) => ({ asked, burnt: Math.round((1000 * rising[i]) / darkest) / 1000 }));
}

/** Numbers that come nearest to others, squares summed, and never fall. */
function risingMeans(values: readonly number[]): number[] {
  const blocks: { sum: number; count: number }[] = [];
  const meanOf = ({ sum, count }: { sum: number; count: number }) => sum / count;
  for (const value of values) {
    let block = { sum: value, count: 1 };
    for (let last = blocks.at(-1); last && meanOf(last) > meanOf(block); last = blocks.at(-1)) {
      blocks.pop();
      block = { sum: last.sum + block.sum, count: last.count + block.count };
    }
    blocks.push(block);
  }
  return blocks.flatMap((block) => Array<number>(block.count).fill(meanOf(block)));
}
