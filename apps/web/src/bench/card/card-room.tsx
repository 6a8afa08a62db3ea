import type { CardWish } from '@lambent/core/document';
import { boxHeight, boxWidth } from '@lambent/core/geometry';
import { cellsThatFit, type TestCard } from '@lambent/core/recipes';
import { Button } from '../../ui/button.tsx';
import { asSize } from '../../ui/figures.ts';
import { t } from '../../words/words.ts';
import { useBench } from '../context.ts';
import { roomOn } from '../lay-on-sheet.ts';
import { jobOf, machineOf, unitOf } from '../state/document.ts';

/** Whether the card has room on the sheet; where it has not, how many cells do. */
export function CardRoom(props: {
  card: TestCard;
  wish: CardWish;
  isFree: boolean;
  change: (part: Partial<CardWish>) => void;
}) {
  const { card, wish, isFree, change } = props;
  const sheet = useBench((state) => jobOf(state).sheets[0]);
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const size = asSize(Math.round(card.width), Math.round(card.height), unit);
  if (isFree) return <p className="text-[12px] text-quiet">{t('It takes {{size}}.', { size })}</p>;
  const room = roomOn(sheet, machine);
  const fits = cellsThatFit(wish, boxWidth(room), boxHeight(room));
  const [wide, high] = [card.columns.length, Math.max(1, card.rows.length)];
  const [columns, rows] = [Math.min(fits.columns, wide), Math.min(fits.rows, high)];
  const tooLarge = columns < wide || rows < high;
  return (
    <div role="status" className="flex flex-col items-start gap-1.5 text-warn">
      <p>
        {t('It takes {{size}}{{tooLarge}}', {
          size,
          tooLarge: tooLarge
            ? t('; the sheet has room for {{columns}} × {{rows}} cells of this size, of {{wide}} × {{high}}.', {
                columns,
                rows,
                wide,
                high,
              })
            : t(', and what lies on the sheet leaves no such room. Make it smaller, or move things.'),
        })}
      </p>
      {tooLarge && columns > 0 && rows > 0 && (
        <Button
          onClick={() =>
            change({
              across: { ...wish.across, steps: columns },
              down: wish.down && { ...wish.down, steps: rows },
            })
          }
        >
          {t('Take {{columns}} × {{rows}}', { columns, rows })}
        </Button>
      )}
    </div>
  );
}
