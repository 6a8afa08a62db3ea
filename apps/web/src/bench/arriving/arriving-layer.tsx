import { verbsOf } from '@lambent/core/document';
import type { Matrix } from '@lambent/core/geometry';
import { useCallback, useMemo } from 'react';
import { paintedArrival } from '../../workers/work.ts';
import { FarWords } from '../bed/artwork-layer.tsx';
import { drawParts } from '../bed/draw-parts.ts';
import { farFrom } from '../bed/far-picture.ts';
import { Layer, Shape } from '../bed/konva.ts';
import type { ArrivalWish } from '../bed/painting.ts';
import { outlineFor } from '../bed/scene.ts';
import { useFarPicture } from '../bed/use-far-picture.ts';
import { usePictures } from '../bed/use-pictures.ts';
import { useBench } from '../context.ts';
import type { Arriving } from '../state/arriving.ts';
import { mapOf } from './arriving.ts';

interface LayerProps {
  readonly size: { readonly width: number; readonly height: number };
  readonly ink: string;
}

/** What is arriving, live on the bed where it would come to lie, in the paints it came with. */
export function ArrivingLayer(props: LayerProps) {
  const arriving = useBench((state) => state.incoming.arriving);
  const map = useBench((state) => (state.incoming.arriving ? mapOf(state, state.incoming.arriving).join(' ') : ''));
  const matrix = useMemo(() => map.split(' ').map(Number) as unknown as Matrix, [map]);
  if (!arriving) return null;
  const isFar = verbsOf(arriving.reading.drawing.items) > farFrom;
  return isFar ? (
    <FarArriving {...props} arriving={arriving} matrix={matrix} />
  ) : (
    <NearArriving {...props} arriving={arriving} matrix={matrix} />
  );
}

function NearArriving({ ink, arriving, matrix }: LayerProps & { arriving: Arriving; matrix: Matrix }) {
  const view = useBench((state) => state.view);
  const pointedOut = useBench((state) => state.pointedOut);
  usePictures();
  const { reading, measured } = arriving;
  const shown = useMemo(() => reading.drawing.items.map((item) => ({ item, outline: outlineFor(item) })), [reading]);
  return (
    <Layer listening={false}>
      <Shape
        sceneFunc={({ _context: context }) => {
          context.save();
          context.transform(view.scale, 0, 0, view.scale, view.x, view.y);
          context.transform(...matrix);
          const px = 1 / (view.scale * Math.hypot(matrix[0], matrix[1]));
          drawParts(context, shown, pointedOut, px, ink, measured);
          context.restore();
        }}
      />
    </Layer>
  );
}

function FarArriving({ size, ink, arriving, matrix }: LayerProps & { arriving: Arriving; matrix: Matrix }) {
  const view = useBench((state) => state.view);
  const pointedOut = useBench((state) => state.pointedOut);
  const { reading, measured } = arriving;
  const paint = useCallback((wish: ArrivalWish) => paintedArrival(reading, wish), [reading]);
  const { width, height } = size;
  const ratio = window.devicePixelRatio || 1;
  const picture = useFarPicture({ view, width, height, ratio, ink, map: matrix, pointedOut, measured }, paint);
  return (
    <Layer listening={false}>
      <Shape sceneFunc={({ _context: target }) => picture.draw(target, view, null)} />
      <FarWords size={size} ink={ink} trouble={picture.trouble} hasPicture={picture.hasPicture} />
    </Layer>
  );
}
