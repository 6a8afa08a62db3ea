import type { ProgramWays } from '@lambent/core/formats';

/** Which piece a move belongs to, or which one burns next after it; the first is 0. */
export function pieceAt({ pieces, lit }: Pick<ProgramWays, 'pieces' | 'lit'>, move: number): number {
  const after = pieces.findIndex((first) => first > move);
  const before = (after < 0 ? pieces.length : after) - 1;
  // On the way to a piece, that is the one.
  return lit[move] === 1 || after < 0 ? Math.max(0, before) : after;
}

/** Which step a move belongs to; the first is 0. */
export function stepAt({ steps }: Pick<ProgramWays, 'steps'>, move: number): number {
  return Math.max(
    0,
    steps.findLastIndex((step) => step.move <= move),
  );
}

/** The lit move that comes nearest to a place, within so many mm; null where none does. */
export function nearestMove(
  { xs, ys, lit }: Pick<ProgramWays, 'xs' | 'ys' | 'lit'>,
  { x, y }: { readonly x: number; readonly y: number },
  withinMm: number,
): number | null {
  let best: number | null = null;
  let least = withinMm;
  for (let i = 1; i < xs.length; i++) {
    if (lit[i] !== 1) continue;
    const [ax, ay, bx, by] = [xs[i - 1], ys[i - 1], xs[i], ys[i]];
    const square = (bx - ax) ** 2 + (by - ay) ** 2;
    const share = square === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / square));
    const distance = Math.hypot(ax + (bx - ax) * share - x, ay + (by - ay) * share - y);
    if (distance < least) [best, least] = [i, distance];
  }
  return best;
}
