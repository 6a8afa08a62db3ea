import type { JobDocument } from '../document/job.ts';

/** Why a job is not burnt with others: it has no stock, or several, or burns in several ways, or holds test cards. */
export type ApartReason = 'stock' | 'runs' | 'cards';

/** Why a job cannot share its sheets with others; null where it can. */
export function apartReason({ sheets, runs, cards }: JobDocument): ApartReason | null {
  if (new Set(sheets.map(({ materialId }) => materialId)).size !== 1) return 'stock';
  const isPlain = runs.every(
    ({ off, only, mirrored, stock, landing: { kind } }) =>
      off.length === 0 && only === null && !mirrored && stock === 'fresh' && kind !== 'marks',
  );
  if (!isPlain) return 'runs';
  return cards.length > 0 ? 'cards' : null;
}
