import { boundsOf, type Item } from '@lambent/core/document';
import { type Box, type Matrix, multiply, rotation } from '@lambent/core/geometry';
import { type BurntLook, type PreparedLayer, toneOn } from '@lambent/core/plan';
import { type CSSProperties, type KeyboardEvent, type PointerEvent, useMemo, useState } from 'react';
import { t } from '../../../../words/words.ts';
import { work } from '../../../../workers/work.ts';
import { ruler, toScreen, type View } from '../../../bed/view.ts';
import { useBench, useBenchLater } from '../../../context.ts';
import { useWorked } from '../../fit/use-worked.ts';
import { BurntDots } from './burnt-dots.tsx';
import { layerOfPicture, selectedPicture, usualToneSettings } from './selected-picture.ts';

/** More cells than these are finer than a screen shows. */
const mostCells = 1_500_000;

/** Over the picture that is selected: as it burns beside as it came, parted where the operator drags it. */
export function BurntSplit() {
  const item = useBenchLater(selectedPicture);
  const layer = useBench(layerOfPicture);
  // What a tool shows of the picture is shown on all of it.
  const isPicking = useBench(({ tool }) => tool === null || tool.name === 'pick');
  return item && layer && isPicking ? <Split item={item} layer={layer} /> : null;
}

function Split({ item, layer }: { item: Item; layer: PreparedLayer }) {
  const view = useBench((state) => state.view);
  const [share, setShare] = useState(0.5);
  const settings = layer.applied.settings ?? usualToneSettings;
  const { shape, matrix } = item;
  const stock = layer.material;
  const tone = useMemo(() => (shape.kind === 'picture' ? toneOn(shape.tone, stock) : null), [shape, stock]);
  const ask = useMemo(() => {
    if (shape.kind !== 'picture' || !tone) return null;
    const { pictureId, crop } = shape;
    return () => work('burntLook', [pictureId, { matrix, tone, crop }, settings, mostCells]);
  }, [shape, matrix, settings, tone]);
  const { answer: look, working, trouble } = useWorked<BurntLook | null>(ask);
  const box = onScreen(boundsOf(item), view);
  const parting = box.minX + share * (box.maxX - box.minX);
  const place = (clientX: number, within: Element) => {
    const { left } = within.getBoundingClientRect();
    setShare(between((clientX - left - box.minX) / (box.maxX - box.minX)));
  };
  return (
    <div
      className="pointer-events-none absolute inset-0 overflow-hidden"
      style={{ left: ruler, top: ruler }}
      data-testid="burnt-split"
    >
      {look && (
        <div className="absolute inset-y-0 right-0 overflow-hidden" style={{ left: parting }}>
          <BurntDots
            columns={look.columns}
            rows={look.rows}
            burnt={look.burnt}
            bareColour={stock?.tone ?? '#EFE8D8'}
            burntColour={tone?.lighter ? '#E9ECEA' : '#2E1A0C'}
            className="absolute left-0 top-0 max-w-none origin-top-left"
            style={lookAt(transformOf(look, settings.scanAngle, view, parting))}
          />
        </div>
      )}
      {box.maxX - box.minX > 300 && (
        <>
          <Label x={box.minX + 10} y={box.minY + 10} words={t('As it came')} />
          <Label
            x={box.maxX - 10}
            y={box.minY + 10}
            words={working ? t('Working it out…') : t('As it burns, simulated')}
            toLeft
          />
        </>
      )}
      {trouble && <Label x={parting + 14} y={box.minY + 40} words={trouble} />}
      <Divider x={parting} box={box} share={share} set={setShare} drag={place} />
    </div>
  );
}

function Divider(props: {
  x: number;
  box: Box;
  share: number;
  set: (share: number) => void;
  drag: (clientX: number, within: Element) => void;
}) {
  const { x, box, share, set, drag } = props;
  const byKey = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 0.1 : 0.02;
    const next = { ArrowLeft: share - step, ArrowRight: share + step, Home: 0, End: 1 }[event.key];
    if (next === undefined) return;
    set(between(next));
    event.preventDefault();
    event.stopPropagation();
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const holder = event.currentTarget.parentElement?.parentElement;
    if (holder && event.currentTarget.hasPointerCapture(event.pointerId)) drag(event.clientX, holder);
  };
  return (
    <div className="absolute w-0.5 bg-flame" style={{ left: x - 1, top: box.minY, height: box.maxY - box.minY }}>
      <div
        role="slider"
        tabIndex={0}
        aria-label={t('As it came on the left, as it burns on the right')}
        aria-valuenow={Math.round(share * 100)}
        aria-valuetext={t('{{share}} % as it came', { share: Math.round(share * 100) })}
        className="pointer-events-auto absolute left-1/2 top-1/2 h-9 w-5 -translate-x-1/2 -translate-y-1/2 cursor-ew-resize touch-none rounded-full border-2 border-flame bg-raised"
        onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
        onPointerMove={move}
        onKeyDown={byKey}
      />
    </div>
  );
}

function Label({ x, y, words, toLeft = false }: { x: number; y: number; words: string; toLeft?: boolean }) {
  return (
    <p
      className={`absolute whitespace-nowrap rounded-full border border-line bg-paper px-3 py-1 shadow-float ${toLeft ? '-translate-x-full' : ''}`}
      style={{ left: x, top: y }}
    >
      {words}
    </p>
  );
}

/** From the cells of a look to pixels right of a place on the screen. */
function transformOf(
  { left, top, dotMm, rowMm }: BurntLook,
  scanAngle: number,
  { scale, x, y }: View,
  from: number,
): Matrix {
  const toFrame: Matrix = [dotMm, 0, 0, rowMm, left, top];
  return multiply([scale, 0, 0, scale, x - from, y], multiply(rotation(scanAngle), toFrame));
}

/** Cells larger than a pixel keep their edges. */
function lookAt(transform: Matrix): CSSProperties {
  return { transform: `matrix(${transform.join(',')})`, imageRendering: transform[0] > 1 ? 'pixelated' : 'auto' };
}

function onScreen({ minX, minY, maxX, maxY }: Box, view: View): Box {
  const [from, to] = [toScreen(view, minX, minY), toScreen(view, maxX, maxY)];
  return { minX: from.x, minY: from.y, maxX: to.x, maxY: to.y };
}

function between(share: number): number {
  return Math.min(1, Math.max(0, share));
}
