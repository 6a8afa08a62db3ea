import { burntCurve } from '@lambent/core/pictures';
import type { BurntGrey } from '@lambent/core/settings';
import { t } from '../words/words.ts';

const [width, height] = [266, 96];
const [left, right, top, foot] = [30, 8, 8, 20];

const xOf = (asked: number) => left + asked * (width - left - right);
const yOf = (burnt: number) => height - foot - burnt * (height - top - foot);

/** How dark greys came out over how dark they were to be: what comes out as asked for lies on the broken line. */
export function BurntGreysChart({ greys }: { greys: readonly BurntGrey[] }) {
  const curve = burntCurve(greys);
  const path = Array.from({ length: 61 }, (_, i) => {
    const asked = i / 60;
    return `${i === 0 ? 'M' : 'L'}${xOf(asked).toFixed(1)} ${yOf(curve(asked)).toFixed(1)}`;
  }).join('');
  const words = greys
    .map(({ asked, burnt }) => t('{{asked}} came out as {{burnt}}', { asked: percent(asked), burnt: percent(burnt) }))
    .join(', ');
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="w-full max-w-[340px] rounded-[10px] border border-line bg-raised text-[10px]"
      role="img"
      aria-label={t('Measured greys: {{words}}', { words })}
    >
      {[0, 0.5, 1].map((share) => (
        <g key={share}>
          <line x1={xOf(0)} x2={xOf(1)} y1={yOf(share)} y2={yOf(share)} className="stroke-line" />
          <text x={left - 5} y={yOf(share) + 3} textAnchor="end" className="figures fill-quiet">
            {Math.round(100 * share)}
          </text>
          <text x={xOf(share)} y={height - 7} textAnchor={anchors[share]} className="figures fill-quiet">
            {share === 1 ? t('of the dots: 100 %') : `${Math.round(100 * share)} %`}
          </text>
        </g>
      ))}
      <text x={xOf(1)} y={yOf(0) - 5} textAnchor="end" className="fill-quiet">
        {t('how dark they came out, %')}
      </text>
      <line x1={xOf(0)} y1={yOf(0)} x2={xOf(1)} y2={yOf(1)} className="stroke-quiet" strokeDasharray="3 4" />
      <path d={path} fill="none" strokeWidth={2} className="stroke-petrol" />
      {greys.map(({ asked, burnt }) => (
        <circle key={asked} cx={xOf(asked)} cy={yOf(burnt)} r={2.5} className="fill-petrol" />
      ))}
    </svg>
  );
}

const anchors: Readonly<Record<number, 'start' | 'middle' | 'end'>> = { 0: 'start', 0.5: 'middle', 1: 'end' };

function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}
