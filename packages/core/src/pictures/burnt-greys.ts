import type { BurntGrey } from '../settings/burnt-greys.ts';
import { curveThrough, inverseOf, mapShares } from './curve.ts';

/**
 * How dark a share of burnt dots comes out on some stuff: the curve through greys that were measured. From 0 for bare to
 * 1 for all dots burnt. Where no grey was measured, a share comes out as it is asked for.
 */
export function burntCurve(greys: readonly BurntGrey[]): (share: number) => number {
  if (greys.length === 0) return (share) => share;
  const places = greys.map(({ asked, burnt }) => ({ from: asked, to: burnt }));
  return curveThrough([{ from: 0, to: 0 }, { from: 1, to: 1 }, ...places]);
}

/** The shares to ask for so that those that are wanted come out. @returns the same ones where nothing was measured */
export function sharesToAsk(wanted: Float32Array, greys: readonly BurntGrey[]): Float32Array {
  if (greys.length === 0) return wanted;
  const undo = inverseOf(burntCurve(greys));
  const asked = wanted.slice();
  // Where less than all already burns black, black stays whole: its edges are sharp.
  mapShares(asked, (share) => (share === 0 || share === 1 ? share : undo(share)));
  return asked;
}
