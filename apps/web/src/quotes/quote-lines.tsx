import type { QuoteAnswer } from '@lambent/contracts';
import { dayOf } from '../stores/dates.ts';
import { formatMoney } from '../ui/figures.ts';
import { said, t } from '../words/words.ts';

/** What a quote offers: its lines, what they add up to, until when, and on which terms. @param pdf where it is to be had on paper */
export function QuoteLines({ quote, pdf }: { quote: QuoteAnswer; pdf: string }) {
  const { lines, total, currency, validUntil, terms } = quote;
  return (
    <>
      <dl className="grid grid-cols-[1fr_auto] gap-x-4">
        {lines.map(({ what, amount }, i) => (
          <div key={i} className="contents">
            <dt className="min-w-0 [overflow-wrap:anywhere]">{said(what)}</dt>
            <dd className="figures text-right">{formatMoney(amount, { currency })}</dd>
          </div>
        ))}
        <dt className="border-t border-line font-bold">{t('In all')}</dt>
        <dd className="figures border-t border-line text-right font-bold">{formatMoney(total, { currency })}</dd>
      </dl>
      <a href={pdf} download className="self-start font-semibold text-petrol hover:underline">
        {t('As PDF')}
      </a>
      <p className="text-quiet">{t('Holds until {{day}}', { day: dayOf(validUntil) })}</p>
      {terms && <p className="whitespace-pre-wrap text-quiet [overflow-wrap:anywhere]">{terms}</p>}
    </>
  );
}
