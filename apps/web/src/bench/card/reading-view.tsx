import { boundsOf, boundsOfAll } from '@lambent/core/document';
import { type Box, boxHeight, boxWidth } from '@lambent/core/geometry';
import { separates } from '@lambent/core/operations';
import { type CardCell, cellName, markNames } from '@lambent/core/recipes';
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { t } from '../../words/words.ts';
import { drawBurnt, type ShownPicture } from '../burnt/burnt-picture.ts';
import { useBench } from '../context.ts';
import { MarkSign, markLook } from './marks.tsx';
import { useMarking } from './read-drawer.tsx';
import { marksShown, type ReadCard, useReadBurn, useReadCard } from './reading.ts';

const MarksChart = lazy(() => import('./marks-chart.tsx'));

/** The card as it was burnt, with its cells to be marked, and a chart of the marks. */
export function ReadingView() {
  const read = useReadCard();
  return read && <Reading read={read} />;
}

function Reading({ read }: { read: ReadCard }) {
  const { shown } = useReadBurn(read.laid);
  return (
    <div className="flex h-full flex-col gap-4 overflow-y-auto bg-table py-5 pl-16 pr-5" data-testid="reading">
      <CardPicture read={read} shown={shown} />
      <section aria-label={t('Grades')} className="rounded-[10px] border border-line bg-paper p-3">
        <Suspense fallback={<p className="text-quiet">{t('One moment…')}</p>}>
          <MarksChart read={read} />
        </Suspense>
      </section>
    </div>
  );
}

/** What is seen around the card, in mm, and the most pixels for each mm. */
const around = 3;
const largest = 9;
const tallest = 330;

function CardPicture({ read, shown }: { read: ReadCard; shown: ShownPicture | undefined }) {
  const holder = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setWidth(entry.contentRect.width));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const bounds = boundsOfAll(read.items);
  const scale = Math.max(
    1.5,
    Math.min(largest, width / (boxWidth(bounds) + 2 * around), tallest / (boxHeight(bounds) + 2 * around)),
  );
  return (
    <div ref={holder} className="flex shrink-0 justify-center">
      {width > 0 && read.items.length > 0 && <CellGrid read={read} shown={shown} bounds={bounds} scale={scale} />}
      {read.items.length === 0 && (
        <p className="text-quiet">{t('The card’s cells were taken away. Undo, or lay another card.')}</p>
      )}
    </div>
  );
}

interface GridProps {
  read: ReadCard;
  shown: ShownPicture | undefined;
  bounds: Box;
  scale: number;
}

function CellGrid({ read, shown, bounds, scale }: GridProps) {
  const mark = useMarking(read);
  const canvas = useRef<HTMLCanvasElement>(null);
  const tone = useBench((state) => state.shop.materials.find(({ id }) => id === read.laid.materialId)?.tone);
  const [drawn, setDrawn] = useState<readonly string[]>([]);
  const [left, top] = [bounds.minX - around, bounds.minY - around];
  const size = {
    width: (boxWidth(bounds) + 2 * around) * scale,
    height: (boxHeight(bounds) + 2 * around) * scale,
  };
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!canvas.current || !context) return;
    const ratio = window.devicePixelRatio || 1;
    canvas.current.width = Math.round(size.width * ratio);
    canvas.current.height = Math.round(size.height * ratio);
    context.setTransform(ratio, 0, 0, ratio, -left * scale * ratio, -top * scale * ratio);
    if (shown) drawBurnt(context, shown, scale);
  }, [shown, scale, left, top, size.width, size.height]);
  // Cells that the pointer went over while it was down are marked together when it is let go.
  const settle = () => {
    if (drawn.length > 0) mark(drawn);
    setDrawn([]);
  };
  // A cell that is cut through falls out of the card: the bed shows in its place.
  const fallen = useMemo(() => {
    if (!shown || !separates(read.laid.wish.operation)) return new Set<string>();
    return new Set([...marksShown(read, shown)].flatMap(([key, mark]) => (mark === 'under' ? [] : [key])));
  }, [read, shown]);
  const first = read.card.cells.find((cell) => read.itemOf(cell));
  const origin = first && read.itemOf(first);
  const zero = origin && first ? { x: boundsOf(origin).minX - first.x, y: boundsOf(origin).minY - first.y } : null;
  return (
    <div
      className="relative shrink-0 select-none rounded-md shadow-float"
      style={{ ...size, background: tone ?? '#E7E2D6' }}
      onPointerUp={settle}
      onPointerLeave={settle}
    >
      {read.card.cells.map((cell) => {
        const item = fallen.has(cell.key) && read.itemOf(cell);
        if (!item) return null;
        return (
          <div
            key={cell.key}
            className="absolute"
            style={{ ...placeOn(boundsOf(item), { left, top, scale }), background: 'var(--bed-around)' }}
          />
        );
      })}
      <canvas ref={canvas} className="absolute inset-0 size-full" />
      {!shown &&
        zero &&
        read.card.labels.map(({ words, x, y, align }) => (
          <span
            key={`${words} ${x} ${y}`}
            className="figures absolute text-[12px] text-[#3A2A18]"
            style={{
              left: (zero.x + x - left) * scale,
              top: (zero.y + y - top) * scale,
              transform: `translate(${align === 'right' ? '-100%' : '-50%'}, -85%)`,
            }}
          >
            {words}
          </span>
        ))}
      {read.card.cells.map((cell) => (
        <CellButton
          key={cell.key}
          read={read}
          cell={cell}
          place={{ left, top, scale }}
          drawn={drawn.includes(cell.key)}
          begin={() => setDrawn([cell.key])}
          add={() => setDrawn((before) => (before.includes(cell.key) ? before : [...before, cell.key]))}
          press={() => mark([cell.key])}
          bare={!shown}
        />
      ))}
    </div>
  );
}

interface Place {
  readonly left: number;
  readonly top: number;
  readonly scale: number;
}

/** Where a box of the bed lies in the picture. */
function placeOn(box: Box, { left, top, scale }: Place) {
  return {
    left: (box.minX - left) * scale,
    top: (box.minY - top) * scale,
    width: boxWidth(box) * scale,
    height: boxHeight(box) * scale,
  };
}

interface CellProps {
  read: ReadCard;
  cell: CardCell;
  place: Place;
  drawn: boolean;
  bare: boolean;
  begin: () => void;
  add: () => void;
  press: () => void;
}

function CellButton({ read, cell, place, drawn, bare, begin, add, press }: CellProps) {
  const item = read.itemOf(cell);
  if (!item) return null;
  const { laid, card } = read;
  const box = boundsOf(item);
  const isBest = laid.best === cell.key;
  const mark = isBest ? 'best' : laid.marks[cell.key];
  const name = cellName(laid.wish, card, cell);
  const said = mark === 'best' ? t('the best') : mark ? markNames(laid.wish.operation)[mark] : t('not graded');
  return (
    <button
      type="button"
      aria-label={`${name}: ${said}`}
      title={`${name}: ${said}`}
      data-mark={mark ?? 'none'}
      onPointerDown={(event) => {
        // The pointer goes on to other cells.
        (event.target as Element).releasePointerCapture?.(event.pointerId);
        if (event.button === 0) begin();
      }}
      onPointerEnter={(event) => {
        if (event.buttons === 1) add();
      }}
      onClick={(event) => {
        // With the keyboard; the pointer marks when it is let go.
        if (event.detail === 0) press();
      }}
      className={`absolute flex items-end justify-end rounded-[3px] p-0.5 outline-offset-1 hover:outline-2 hover:outline-petrol focus-visible:outline-2 focus-visible:outline-petrol ${bare ? 'border border-[#3A2A18]/50' : ''} ${drawn ? 'bg-petrol/25' : ''}`}
      style={{
        ...placeOn(box, place),
        ...(isBest ? { boxShadow: `0 0 0 3px ${markLook.best.colour}` } : {}),
      }}
    >
      {mark && <MarkSign mark={mark} size={Math.max(9, Math.min(14, boxWidth(box) * place.scale * 0.3))} />}
    </button>
  );
}
