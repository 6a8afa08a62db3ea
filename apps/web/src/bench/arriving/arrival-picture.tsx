import { verbsOf } from '@lambent/core/document';
import { type Reading, shownBounds } from '@lambent/core/formats';
import { boxHeight, boxWidth, growBox, identity, isEmpty } from '@lambent/core/geometry';
import { itemAt } from '@lambent/core/picking';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import { t } from '../../words/words.ts';
import { paintedArrival } from '../../workers/work.ts';
import { drawParts } from '../bed/draw-parts.ts';
import { farFrom } from '../bed/far-picture.ts';
import type { ArrivalWish } from '../bed/painting.ts';
import { outlineFor } from '../bed/scene.ts';
import { useFarPicture } from '../bed/use-far-picture.ts';
import { usePictures } from '../bed/use-pictures.ts';
import { useBench, useBenchActions } from '../context.ts';
import type { Arriving } from '../state/arriving.ts';

const wide = 266;
const high = 168;
const ink = '#1E2A2E';

/** What arrives, whole, in its own paints; a click marks the part whose size is known. */
export function ArrivalPicture({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const pointedOut = useBench((state) => state.pointedOut);
  const ready = usePictures();
  const canvas = useRef<HTMLCanvasElement>(null);
  const { reading, measured } = arriving;
  const parts = useMemo(() => partsOf(reading), [reading]);
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

  const wish = useMemo(
    () =>
      view && !parts
        ? { view, width: wide, height: high, ratio: pixelRatio(), ink, map: identity, pointedOut, measured }
        : null,
    [view, parts, pointedOut, measured],
  );
  const paint = useCallback((wanted: ArrivalWish) => paintedArrival(reading, wanted), [reading]);
  const far = useFarPicture(wish, paint);

  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn again when a picture is ready, or painted
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const ratio = pixelRatio();
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.fillStyle = '#FFFFFF';
    context.fillRect(0, 0, wide, high);
    if (!view) return;
    if (!parts) {
      far.draw(context, view, null);
      return;
    }
    context.transform(view.scale, 0, 0, view.scale, view.x, view.y);
    drawParts(context, parts, pointedOut, 1 / view.scale, ink, measured);
  }, [view, parts, pointedOut, measured, ready, far.version]);

  const ratio = pixelRatio();
  return (
    <canvas
      ref={canvas}
      width={wide * ratio}
      height={high * ratio}
      style={{ width: wide, height: high }}
      className="cursor-crosshair rounded-[10px] border border-line"
      data-testid="arrival-picture"
      role="img"
      aria-label={t('What {{name}} draws', { name: arriving.file.name })}
      onPointerDown={(event) => {
        if (!view) return;
        const frame = event.currentTarget.getBoundingClientRect();
        const [x, y] = [event.clientX - frame.left, event.clientY - frame.top];
        const part = itemAt(reading.drawing, (x - view.x) / view.scale, (y - view.y) / view.scale, 5 / view.scale);
        actions.adjustArriving({ measured: part?.id ?? null });
      }}
    />
  );
}

/** Its items with their outlines; null where they are too many to be drawn here. */
function partsOf({ drawing }: Reading) {
  if (verbsOf(drawing.items) > farFrom) return null;
  return drawing.items.map((item) => ({ item, outline: outlineFor(item) }));
}

const pixelRatio = () => window.devicePixelRatio || 1;
