import type { Tone, TonePoint } from '@lambent/core/document';
import { curveThrough } from '@lambent/core/pictures';
import { useQuery } from '@tanstack/react-query';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { t } from '../../../../words/words.ts';
import { work } from '../../../../workers/work.ts';

const [width, height] = [266, 108];
const pad = 9;
const bins = 64;
/** Nearer to another point than this it could not be told from it. */
const nearest = 0.02;
/** More points are a drawing, and no decision. */
const mostPoints = 12;

const ends: readonly TonePoint[] = [
  { from: 0, to: 0 },
  { from: 1, to: 1 },
];

const xOf = (from: number) => pad + from * (width - 2 * pad);
const yOf = (to: number) => height - pad - to * (height - 2 * pad);

/** How its greys are changed: a curve over how often each grey is in the picture. Black is at the left, white at the right. */
export function ToneCurve({
  pictureId,
  curve,
  drag,
  commit,
}: {
  pictureId: string;
  curve: Tone['curve'];
  /** Is told what it comes to while a point is dragged. */
  drag: (curve: Tone['curve']) => void;
  commit: (curve: Tone['curve']) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<number | null>(null);
  const points = curve && curve.length > 0 ? curve : ends;
  const histogram = useQuery({
    queryKey: ['histogram', pictureId],
    queryFn: () => work('histogram', [pictureId, bins]),
    staleTime: Number.POSITIVE_INFINITY,
  }).data;

  const placeOf = ({ clientX, clientY }: { clientX: number; clientY: number }): TonePoint => {
    const { left, top } = (box.current as HTMLDivElement).getBoundingClientRect();
    const from = (clientX - left - pad) / (width - 2 * pad);
    const to = 1 - (clientY - top - pad) / (height - 2 * pad);
    return { from: rounded(from), to: rounded(to) };
  };
  const added = (event: PointerEvent) => {
    const place = placeOf(event);
    if (points.length >= mostPoints || points.some(({ from }) => Math.abs(from - place.from) < nearest)) return;
    commit([...points, place].sort((a, b) => a.from - b.from));
  };
  const moved = (index: number, place: TonePoint) => points.with(index, between(points, index, place));
  const gone = (index: number) => {
    if (points.length > 2) commit(points.filter((_, i) => i !== index));
  };
  const byKey = (event: KeyboardEvent, index: number) => {
    const step = event.shiftKey ? 0.1 : 0.01;
    const change = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowDown: [0, -step], ArrowUp: [0, step] }[
      event.key
    ];
    if (event.key === 'Delete' || event.key === 'Backspace') gone(index);
    else if (change) {
      const { from, to } = points[index];
      commit(moved(index, { from: rounded(from + change[0]), to: rounded(to + change[1]) }));
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div>
      <div
        ref={box}
        className="relative rounded-[10px] border border-line bg-raised"
        style={{ width: width + 2, height: height + 2 }}
      >
        <svg
          width={width}
          height={height}
          className="block cursor-crosshair touch-none"
          role="img"
          aria-label={t('Tone curve over the greys of the picture; click to add a point')}
          onPointerDown={added}
        >
          {histogram && <path d={histogramPath(histogram)} className="fill-line" />}
          <line x1={xOf(0)} y1={yOf(0)} x2={xOf(1)} y2={yOf(1)} className="stroke-line" strokeDasharray="3 4" />
          <path d={curvePath(points)} fill="none" strokeWidth={2} className="stroke-petrol" />
        </svg>
        {points.map(({ from, to }, i) => (
          <button
            key={i}
            type="button"
            aria-label={t('{{from}} grey becomes {{to}}', { from: percent(from), to: percent(to) })}
            title={t('Drag it; arrow keys move it, Delete takes it away')}
            className="absolute size-3.5 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none rounded-full border-2 border-petrol bg-raised"
            style={{ left: xOf(from), top: yOf(to) }}
            onKeyDown={(event) => byKey(event, i)}
            onDoubleClick={() => gone(i)}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              setHeld(i);
            }}
            onPointerMove={(event) => {
              if (held === i) drag(moved(i, placeOf(event)));
            }}
            onPointerUp={() => {
              if (held === i && curve) commit(curve);
              setHeld(null);
            }}
          />
        ))}
      </div>
      <div className="flex items-center justify-between text-[12px] text-quiet">
        <span>{t('Black')}</span>
        {curve && (
          <Button look="quiet" onClick={() => commit(undefined)}>
            {t('As it came')}
          </Button>
        )}
        <span>{t('White')}</span>
      </div>
    </div>
  );
}

/** A point where it may be: between its neighbours, and from black to white. */
function between(points: readonly TonePoint[], index: number, { from, to }: TonePoint): TonePoint {
  const least = index === 0 ? 0 : points[index - 1].from + nearest;
  const most = index === points.length - 1 ? 1 : points[index + 1].from - nearest;
  return { from: Math.min(most, Math.max(least, from)), to: Math.min(1, Math.max(0, to)) };
}

function curvePath(points: readonly TonePoint[]): string {
  const through = curveThrough(points);
  const steps = 80;
  return Array.from({ length: steps + 1 }, (_, i) => {
    const from = i / steps;
    return `${i === 0 ? 'M' : 'L'}${xOf(from).toFixed(1)} ${yOf(Math.min(1, Math.max(0, through(from)))).toFixed(1)}`;
  }).join('');
}

/** By the root of how many there are: what is rare is seen beside what is not. */
function histogramPath(counts: Uint32Array): string {
  const roots = Array.from(counts, Math.sqrt);
  const top = Math.max(1, ...roots);
  const step = (width - 2 * pad) / roots.length;
  const bars = roots.map(
    (root, i) => `L${(pad + i * step).toFixed(1)} ${yOf((0.92 * root) / top).toFixed(1)}h${step.toFixed(2)}`,
  );
  return `M${xOf(0)} ${yOf(0)}${bars.join('')}L${xOf(1)} ${yOf(0)}Z`;
}

function rounded(value: number): number {
  return Math.round(Math.min(1, Math.max(0, value)) * 100) / 100;
}

function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}
