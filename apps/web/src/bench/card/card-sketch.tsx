import type { CardWish } from '@lambent/core/document';
import { fillsAreas, operationOf } from '@lambent/core/operations';
import type { TestCard } from '@lambent/core/recipes';
import { t } from '../../words/words.ts';

/** The card in small, from its mildest cell to its fiercest. */
export function CardSketch({ card, wish }: { card: TestCard; wish: CardWish }) {
  const { colour } = operationOf(wish.operation);
  const fills = fillsAreas(wish.operation);
  return (
    <svg
      viewBox={`-1 -1 ${card.width + 2} ${card.height + 2}`}
      className="max-h-44 w-full shrink-0 rounded-lg border border-line bg-raised p-2"
      role="img"
      aria-label={t('{{columns}} columns, {{rows}} rows', {
        columns: card.columns.length,
        rows: Math.max(1, card.rows.length),
      })}
    >
      {card.cells.map(({ key, x, y }, i) => {
        const share = 0.2 + (0.8 * (i + 1)) / card.cells.length;
        return (
          <rect
            key={key}
            x={x}
            y={y}
            width={wish.cellMm}
            height={wish.cellMm}
            fill={fills ? colour : 'none'}
            fillOpacity={share}
            stroke={colour}
            strokeOpacity={fills ? 0 : share}
            strokeWidth={0.3 + share * 0.7}
          />
        );
      })}
      {card.labels.map(({ words, x, y, align }) => (
        <text
          key={`${words} ${x} ${y}`}
          x={x}
          y={y}
          fontSize={3.3}
          textAnchor={align === 'right' ? 'end' : 'middle'}
          className="fill-ink"
        >
          {words}
        </text>
      ))}
    </svg>
  );
}
