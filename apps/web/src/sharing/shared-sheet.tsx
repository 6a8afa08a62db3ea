import type { SharedSheetAnswer } from '@lambent/contracts';

/** As many jobs look different; more than that begin anew. */
const hues = ['#0F6670', '#B4531F', '#5B3FA6', '#2E7D46', '#9A2A5B', '#2F5FB3', '#7A6A00', '#4A5560'];

/** A colour for each job, by its id. */
export function jobColours(ids: readonly string[]): ReadonlyMap<string, string> {
  return new Map(ids.map((id, i) => [id, hues[i % hues.length]]));
}

interface Props {
  readonly sheet: SharedSheetAnswer;
  /** The colour of the stock. */
  readonly tone: string | undefined;
  /** By job; all alike where nothing is said. */
  readonly colours?: ReadonlyMap<string, string>;
}

/** A sheet with the outlines of what lies on it. What it shows is said beside it. */
export function SharedSheet({ sheet, tone = '#F4F1E9', colours }: Props) {
  const { widthMm, heightMm, outline, pieces } = sheet;
  return (
    <svg viewBox={`-1 -1 ${widthMm + 2} ${heightMm + 2}`} className="max-h-[min(340px,50vh)] w-full" aria-hidden>
      <path d={outline} fill={tone} stroke="#8A7B5C" strokeWidth={1} vectorEffect="non-scaling-stroke" />
      {pieces.map(({ jobId, outline: piece }, i) => {
        const colour = colours?.get(jobId) ?? hues[0];
        return (
          <path
            key={i}
            d={piece}
            fill={colour}
            fillOpacity={colours ? 0.35 : 0.12}
            fillRule="evenodd"
            stroke={colour}
            strokeWidth={1.25}
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
    </svg>
  );
}
