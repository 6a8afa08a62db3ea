import type { SendingLook } from '@lambent/contracts';
import { whenOf } from '../stores/dates.ts';
import { formatDuration, formatMoney } from '../ui/figures.ts';
import { said, t } from '../words/words.ts';

interface Props {
  readonly look: SendingLook;
  readonly currency: string;
  /** When it could be burnt, as ISO 8601; null where that is not known. */
  readonly readyAt: string | null;
  readonly isLooking: boolean;
}

/** What a sending takes and costs, in parts. */
export function SendingCost({ look, currency, readyAt, isLooking }: Props) {
  const { seconds, price, paints } = look;
  const isOpen = paints.some(({ operation }) => operation === null);
  return (
    <section
      aria-label={t('Time and price')}
      aria-busy={isLooking}
      className="mt-4 rounded-lg bg-slate p-4 text-[#F4F1E9]"
    >
      {seconds === null ? (
        <p>{t('We tell you the price when we have looked at it.')}</p>
      ) : (
        <>
          <div className="flex items-baseline gap-2">
            <span>{t('On the machine')}</span>
            <span className="figures font-bold">{formatDuration(seconds)}</span>
            {price && (
              <span className="figures ml-auto text-[18px] font-bold">{formatMoney(price.total, { currency })}</span>
            )}
          </div>
          {price && (
            <ul className="mt-2 flex flex-wrap gap-x-4 gap-y-0.5 text-[12px]">
              {price.parts.map(({ what, amount }) => (
                <li key={what}>
                  {said(what)} <span className="figures">{formatMoney(amount, { currency })}</span>
                </li>
              ))}
            </ul>
          )}
          {readyAt && <p className="mt-2">{t('Could be ready: {{time}}', { time: whenOf(readyAt) })}</p>}
          {isOpen && <p className="mt-2 text-[12px]">{t('Without what has no meaning yet.')}</p>}
        </>
      )}
    </section>
  );
}
