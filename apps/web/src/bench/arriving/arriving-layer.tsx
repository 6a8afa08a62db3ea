import type { Item } from '@lambent/core';
import { useMemo } from 'react';
import { Layer, Shape } from 'react-konva';
import { drawPaint } from '../bed/draw-artwork.ts';
import { usePictures } from '../bed/pictures.ts';
import { outlineFor } from '../bed/scene.ts';
import { useBench } from '../context.ts';
import { mapOf } from './arriving.ts';

/** What is arriving, live on the bed where it would come to lie, in the paints it came with. */
export function ArrivingLayer({ ink }: { ink: string }) {
  const view = useBench((state) => state.view);
  const arriving = useBench((state) => state.incoming.arriving);
  const pointedOut = useBench((state) => state.pointedOut);
  const map = useBench((state) => (state.incoming.arriving ? mapOf(state, state.incoming.arriving).join(' ') : ''));
  usePictures();
  const shown = useMemo(
    () => arriving?.reading.drawing.items.map((item) => ({ item, outline: outlineFor(item) })) ?? [],
    [arriving],
  );
  if (!arriving) return null;
  return (
    <Layer listening={false}>
      <Shape
        sceneFunc={({ _context: context }) => {
          const matrix = map.split(' ').map(Number) as [number, number, number, number, number, number];
          context.save();
          context.transform(view.scale, 0, 0, view.scale, view.x, view.y);
          context.transform(...matrix);
          const px = 1 / (view.scale * Math.hypot(matrix[0], matrix[1]));
          drawParts(context, shown, pointedOut, px, ink, arriving.measured);
          context.restore();
        }}
      />
    </Layer>
  );
}

/** Items in their own paints; hidden ones only while they are pointed out. */
export function drawParts(
  context: CanvasRenderingContext2D,
  parts: readonly { readonly item: Item; readonly outline: Path2D }[],
  pointedOut: ReadonlySet<string>,
  px: number,
  ink: string,
  measured: string | null,
): void {
  for (const { item, outline } of parts) {
    const out = pointedOut.has(item.id) || measured === item.id;
    if (item.hidden && !out) continue;
    if (out) {
      context.setLineDash([]);
      context.lineWidth = 7 * px;
      context.strokeStyle = 'rgb(240 169 59 / 0.75)';
      context.stroke(outline);
    }
    if (item.hidden) {
      context.setLineDash([2 * px, 3 * px]);
      context.lineWidth = 1.4 * px;
      context.strokeStyle = ink;
      context.stroke(outline);
    } else drawPaint(context, item, outline, px);
  }
}
