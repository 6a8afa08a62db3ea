import type { Item } from '@lambent/core/document';
import type { Progress } from '@lambent/core/geometry';
import type { BurnPlan } from '@lambent/core/plan';

/** How much of a work is done when it has come to the worker. */
const begunShare = 0.01;
/** At most so often it is said how much is done. */
const sayEveryMs = 100;

/** Passes progress on, but not more often than it is worth a message. */
export function nowAndThen(progress: Progress): Progress {
  // That it was begun is said at once.
  progress(begunShare);
  let last = performance.now();
  return (share) => {
    const now = performance.now();
    if (now - last < sayEveryMs) return;
    last = now;
    progress(share);
  };
}

/** An answer with what goes over with it, and is not copied. */
export class Moved {
  constructor(
    readonly value: unknown,
    readonly buffers: Transferable[],
  ) {}
}

/** Marks an answer whose buffers go to the page and are not copied. */
export function moved<T>(value: T, buffers: Transferable[]): T {
  return new Moved(value, buffers) as T;
}

/** An answer whose items go ahead of it, a few at a time. */
export class WithItems {
  constructor(
    readonly value: unknown,
    readonly items: readonly Item[],
  ) {}
}

/** Marks an answer whose items go ahead of it in portions. */
export function itemsAhead<T>(value: T, items: readonly Item[]): T {
  return new WithItems(value, items) as T;
}

/** All that a plan's moves are kept in: given away with it, they are not copied. */
export function buffersOf({ back, steps }: BurnPlan): ArrayBuffer[] {
  const moves = [back, ...steps.map((step) => step.moves)].flatMap(({ kinds, xs, ys }) => [kinds, xs, ys]);
  const optional = steps.flatMap(({ moves: { powers, values } }) => [powers, values].filter((entry) => entry != null));
  return [...moves, ...steps.map(({ durations }) => durations), ...optional].map(({ buffer }) => buffer as ArrayBuffer);
}
