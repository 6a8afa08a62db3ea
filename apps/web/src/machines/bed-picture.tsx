import { fromMachine, type Machine, restingPlace } from '@lambent/core/machine';
import { asLength, asSize } from '../ui/figures.ts';
import { t } from '../words/words.ts';

/** As large as the bed is drawn, in pixels, and the room around it for its figures. */
const [widest, highest, around] = [300, 210, 30];
/** How wide a cell of the honeycomb is drawn where nobody said how wide its gaps are, in mm. */
const usualGapMm = 10;
/** Honeycomb that is finer than this, in pixels, would be grey. */
const finestComb = 5;
/** The longest that the axes are drawn, in pixels. */
const axis = 46;

/** The bed of a machine as it is typed: its edges, margin, zero and axes, and where the head rests. */
export function BedPicture({ machine }: { machine: Machine }) {
  const { bedWidth, bedHeight, margin, origin, pointer } = machine;
  const scale = Math.min(widest / bedWidth, highest / bedHeight);
  const [width, height] = [bedWidth * scale, bedHeight * scale];
  const place = (x: number, y: number) => {
    const { x: bedX, y: bedY } = fromMachine(machine, x, y);
    return { x: bedX * scale, y: bedY * scale };
  };
  const zero = place(0, 0);
  const up = origin === 'top-left' ? 1 : -1;
  const reach = Math.min(axis, width / 2, height / 2);
  const rest = restingPlace(machine);
  const head = { x: rest.x * scale, y: rest.y * scale };
  const spot = pointer ? { x: head.x + pointer.x * scale, y: head.y + up * pointer.y * scale } : null;
  return (
    <svg
      viewBox={`${-around} ${-around} ${width + 2 * around} ${height + 2 * around}`}
      className="mx-auto block max-h-[270px] w-full"
      role="img"
      aria-label={t('The bed, {{bedWidth}}', { bedWidth: asSize(bedWidth, bedHeight).replace('×', 'by') })}
      fontSize={12}
    >
      <Comb pitch={(machine.bedGapMm ?? usualGapMm) * scale} />
      <rect width={width} height={height} fill="var(--table)" />
      <rect width={width} height={height} fill="url(#comb)" stroke="var(--quiet)" strokeWidth={1.2} />
      {margin > 0 && 2 * margin < Math.min(bedWidth, bedHeight) && (
        <rect
          x={margin * scale}
          y={margin * scale}
          width={width - 2 * margin * scale}
          height={height - 2 * margin * scale}
          fill="none"
          stroke="var(--quiet)"
          strokeDasharray="5 3"
        />
      )}
      <g stroke="var(--petrol)" strokeWidth={1.6} fill="none">
        <path d={`M${zero.x} ${zero.y}h${reach}m-5 -4l5 4l-5 4`} />
        <path d={`M${zero.x} ${zero.y}v${up * reach}m-4 ${-5 * up}l4 ${5 * up}l4 ${-5 * up}`} />
        <circle cx={zero.x} cy={zero.y} r={5} stroke="var(--ink)" fill="var(--paper)" />
      </g>
      <g fill="var(--petrol)" className="figures">
        <text x={zero.x + reach + 6} y={zero.y + 4}>
          {t('X')}
        </text>
        <text x={zero.x + 7} y={zero.y + up * reach + 4}>
          {t('Y')}
        </text>
      </g>
      {machine.rest && (
        <g>
          <circle cx={head.x} cy={head.y} r={4.5} fill="#F0A93B" stroke="var(--paper)" />
          <text
            x={head.x < width / 2 ? head.x + 9 : head.x - 9}
            y={head.y < height / 2 ? head.y + 16 : head.y - 8}
            textAnchor={head.x < width / 2 ? 'start' : 'end'}
            fill="var(--quiet)"
          >
            {t('rests here')}
          </text>
        </g>
      )}
      {spot && (
        <g stroke="var(--stop)" strokeWidth={1.4}>
          <path d={`M${spot.x - 5} ${spot.y}h10M${spot.x} ${spot.y - 5}v10`} />
          <title>{t('The red pointer, while the head rests')}</title>
        </g>
      )}
      <g fill="var(--ink)" className="figures" textAnchor="middle">
        <text x={width / 2} y={height + 20}>
          {asLength(bedWidth)}
        </text>
        <text
          x={width + 10}
          y={height / 2}
          textAnchor="start"
          transform={`rotate(90 ${width + 10} ${height / 2})`}
          dx={-24}
        >
          {asLength(bedHeight)}
        </text>
      </g>
    </svg>
  );
}

/** The honeycomb that stock lies on, as wide as its gaps are. */
function Comb({ pitch }: { pitch: number }) {
  const w = Math.max(pitch, finestComb);
  const h = w / Math.sqrt(3);
  return (
    <defs>
      <pattern id="comb" width={w} height={3 * h} patternUnits="userSpaceOnUse">
        <path
          d={`M0 ${h / 2}L${w / 2} 0L${w} ${h / 2}V${1.5 * h}L${w / 2} ${2 * h}L0 ${1.5 * h}ZM${w / 2} ${2 * h}V${3 * h}`}
          fill="none"
          stroke="var(--line)"
          strokeWidth={0.8}
        />
      </pattern>
    </defs>
  );
}
