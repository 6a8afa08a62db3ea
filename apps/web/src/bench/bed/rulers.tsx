import { type Machine, toMachine } from '@lambent/core/machine';
import type { LengthUnit } from '@lambent/core/units';
import type { PointerEvent } from 'react';
import { formatLength } from '../../ui/figures.ts';
import { ruler, type View } from './view.ts';

/** Steps a ruler may count in, in its unit's mm; the smallest that leaves room for its figures is taken. */
const steps: Record<LengthUnit, readonly number[]> = {
  mm: [1, 2, 5, 10, 20, 50, 100, 200, 500],
  cm: [1, 5, 10, 20, 50, 100, 200, 500],
  in: [0.125, 0.25, 0.5, 1, 2, 4, 8, 16].map((inches) => inches * 25.4),
};
const leastGap = 44;

interface Props {
  machine: Machine;
  unit: LengthUnit;
  view: View;
  width: number;
  height: number;
  /** Begins to pull a guide line: upright ones from the ruler at the left, level ones from that along the top. */
  pull: (axis: 'x' | 'y', event: PointerEvent<Element>) => void;
}

/** Rulers along the top and the left, counting from the machine's zero. */
export function Rulers({ machine, unit, view, width, height, pull }: Props) {
  const step = steps[unit].find((mm) => mm * view.scale >= leastGap) ?? steps[unit][steps[unit].length - 1];
  const zero = toMachine(machine, 0, 0);
  const upwards = machine.origin !== 'top-left';
  const across = ticks(-view.x / view.scale, (width - view.x) / view.scale, step, zero.x, 1);
  const down = ticks(-view.y / view.scale, (height - view.y) / view.scale, step, zero.y, upwards ? -1 : 1);
  const say = (mm: number) => formatLength(mm, unit, { bare: true, fractionOf: 8 });
  return (
    <>
      <svg
        width={width}
        height={ruler}
        className="absolute top-0 cursor-row-resize touch-none bg-paper text-quiet"
        style={{ left: ruler }}
        data-testid="ruler-across"
        onPointerDown={(event) => pull('y', event)}
        aria-hidden="true"
      >
        {across.map(({ at, value }) => {
          const x = at * view.scale + view.x;
          return (
            <g key={value}>
              <line x1={x} x2={x} y1={14} y2={ruler} stroke="currentColor" />
              <text x={x + 3} y={12} className="figures" fontSize="11" fill="currentColor">
                {say(value)}
              </text>
            </g>
          );
        })}
        <line x1={0} x2={width} y1={ruler - 0.5} y2={ruler - 0.5} stroke="var(--line)" />
      </svg>
      <svg
        width={ruler}
        height={height}
        className="absolute left-0 cursor-col-resize touch-none bg-paper text-quiet"
        style={{ top: ruler }}
        data-testid="ruler-down"
        onPointerDown={(event) => pull('x', event)}
        aria-hidden="true"
      >
        {down.map(({ at, value }) => {
          const y = at * view.scale + view.y;
          return (
            <g key={value}>
              <line x1={14} x2={ruler} y1={y} y2={y} stroke="currentColor" />
              <text
                transform={`translate(12 ${y - 3}) rotate(-90)`}
                className="figures"
                fontSize="11"
                fill="currentColor"
              >
                {say(value)}
              </text>
            </g>
          );
        })}
        <line x1={ruler - 0.5} x2={ruler - 0.5} y1={0} y2={height} stroke="var(--line)" />
      </svg>
      <div className="absolute left-0 top-0 size-[22px] border-b border-r border-line bg-paper" aria-hidden="true" />
    </>
  );
}

/** Places along one axis, in bed mm, with what the machine calls them. */
function ticks(from: number, to: number, step: number, zero: number, direction: 1 | -1) {
  const ends = [zero + direction * from, zero + direction * to].sort((a, b) => a - b);
  const out: { at: number; value: number }[] = [];
  for (let k = Math.ceil(ends[0] / step); k * step <= ends[1]; k++) {
    out.push({ at: (k * step - zero) * direction, value: k * step });
  }
  return out;
}
