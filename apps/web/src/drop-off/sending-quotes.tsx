import type { QuoteAnswer } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { QuoteLines } from '../quotes/quote-lines.tsx';
import { dayAndTimeOf } from '../stores/dates.ts';
import { Button } from '../ui/button.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { followMs } from './follow-ms.ts';
import { senderApi } from './sender-api.ts';

/** What the workshop offers to make a sending for, and the way to say yes to it. */
export function SendingQuotes({ token }: { token: string }) {
  const queries = useQueryClient();
  const key = ['sending', token, 'quotes'];
  const quotes = useQuery({ queryKey: key, queryFn: () => senderApi.sendingQuotes(token), refetchInterval: followMs });
  const [accept, trouble] = useSent(async (number: number) => {
    queries.setQueryData<QuoteAnswer[]>(key, await senderApi.acceptOwnQuote(token, number));
    await queries.invalidateQueries({ queryKey: ['sending', token] });
  });
  const [quote] = quotes.data ?? [];
  if (!quote) return null;
  return (
    <section
      aria-label={t('Quote {{number}}', { number: quote.number })}
      className="mb-3 rounded-lg border border-petrol p-3"
    >
      <h2 className="mb-1 text-[15px] font-bold">{t('Quote {{number}}', { number: quote.number })}</h2>
      <QuoteLines quote={quote} pdf={`/api/drop-off/${token}/quotes/${quote.number}/quote.pdf`} />
      {quote.state === 'open' && (
        <Button look="main" className="mt-2 h-10 px-4" onClick={() => void accept(quote.number)}>
          {t('Yes, make it for this price')}
        </Button>
      )}
      {quote.state === 'expired' && (
        <p className="mt-2 text-warn">{t('This quote is over. Ask the workshop for another.')}</p>
      )}
      {quote.acceptedAt && (
        <p className="mt-2 font-semibold text-settled">
          {t('You said yes, {{at}}', { at: dayAndTimeOf(quote.acceptedAt) })}
        </p>
      )}
      {trouble}
    </section>
  );
}
