import { boxHeight, boxWidth, growBox, isEmpty, itemAt, shownBounds } from '@lambent/core';
import { useEffect, useMemo, useRef } from 'react';
import { usePictures } from '../bed/pictures.ts';
import { outlineFor } from '../bed/scene.ts';
import { useBench, useBenchActions } from '../context.ts';
import { adjust } from './arriving.ts';
import { drawParts } from './arriving-layer.tsx';
import type { Arriving } from './incoming.ts';

const wide = 266;
const high = 168;

/** What arrives, whole, in its own paints; a click marks the part whose size is known. */
export function ArrivalPicture({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const pointedOut = useBench((state) => state.pointedOut);
  const ready = usePictures((state) => state.ready);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { reading, measured } = arriving;
  const parts = useMemo(() => reading.drawing.items.map((item) => ({ item, outline: outlineFor(item) })), [reading]);
  const view = useMemo(() => {
    const box = shownBounds(reading);
    if (isEmpty(box)) return null;
    const grown = growBox(box, Math.max(boxWidth(box), boxHeight(box)) * 0.04 || 1);
    const scale = Math.min(wide / boxWidth(grown), high / boxHeight(grown));
    return {
      scale,
      x: wide / 2 - ((grown.minX + grown.maxX) / 2) * scale,
      y: high / 2 - ((grown.minY + grown.maxY) / 2) * scale,
    };
  }, [reading]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn again when a picture is ready
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const ratio = window.devicePixelRatio || 1;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.fillStyle = '#FFFFFF';
    context.fillRect(0, 0, wide, high);
    if (!view) return;
    context.transform(view.scale, 0, 0, view.scale, view.x, view.y);
    drawParts(context, parts, pointedOut, 1 / view.scale, '#1E2A2E', measured);
  }, [view, parts, pointedOut, measured, ready]);

  const ratio = window.devicePixelRatio || 1;
  return (
    <canvas
      ref={canvas}
      width={wide * ratio}
      height={high * ratio}
      style={{ width: wide, height: high }}
      className="cursor-crosshair rounded-[10px] border border-line"
      data-testid="arrival-picture"
      role="img"
      aria-label={`What ${arriving.file.name} draws`}
      onPointerDown={(event) => {
        if (!view) return;
        const frame = event.currentTarget.getBoundingClientRect();
        const [x, y] = [event.clientX - frame.left, event.clientY - frame.top];
        const part = itemAt(reading.drawing, (x - view.x) / view.scale, (y - view.y) / view.scale, 5 / view.scale);
        adjust(actions, { measured: part?.id ?? null });
      }}
    />
  );
}
