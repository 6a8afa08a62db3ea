import { useQuery } from '@tanstack/react-query';
import { api } from '../../api.ts';
import type { ShownPicture } from '../../workers/burnt-levels.ts';
import { work } from '../../workers/work.ts';

export type { ShownPicture } from '../../workers/burnt-levels.ts';

/** The picture of a run; undefined while it is on its way, or where none is asked for. */
export function useBurntPicture(runId: string | null): ShownPicture | undefined {
  return useQuery({
    queryKey: ['burnt picture', runId],
    queryFn: async ({ signal }) => work('burntPicture', [await api.burntPicture(runId ?? '')], { signal }),
    enabled: runId !== null,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  }).data;
}

/** Draws a picture where it lies, at `scale` pixels for each mm, with bed mm (0, 0) at the context's origin. */
export function drawBurnt(context: CanvasRenderingContext2D, { picture, levels }: ShownPicture, scale: number): void {
  const pixels = scale * picture.pitchMm;
  const level = Math.min(levels.length - 1, Math.max(0, Math.floor(Math.log2(1 / pixels))));
  const bitmap = levels[level];
  const size = picture.pitchMm * 2 ** level * scale;
  context.imageSmoothingEnabled = pixels * 2 ** level < 2;
  context.drawImage(bitmap, picture.x * scale, picture.y * scale, bitmap.width * size, bitmap.height * size);
}
