import { useEffect, useMemo, useReducer } from 'react';
import { FarPicture, type Wish } from './far-picture.ts';
import type { PaintedPictures } from './painting.ts';

/** A picture that a worker paints, as is wanted now; what shows it is rendered again when there is another. */
export function useFarPicture<W extends Wish>(
  wish: W | null,
  paint: (wish: W) => Promise<PaintedPictures>,
): FarPicture<W> {
  const [, changed] = useReducer((count: number) => count + 1, 0);
  const picture = useMemo(() => new FarPicture<W>(paint, changed), [paint]);
  useEffect(() => () => picture.close(), [picture]);
  useEffect(() => {
    if (wish && wish.width > 0) picture.want(wish);
  });
  return picture;
}
