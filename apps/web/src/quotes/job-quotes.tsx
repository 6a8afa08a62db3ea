import type { JobCard, QuoteAnswer } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf } from '../api.ts';
import { dayAndTimeOf, dayOf } from '../stores/dates.ts';
import { useWho } from '../stores/who.ts';
import { Button } from '../ui/button.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { QuoteForm } from './quote-form.tsx';
import { QuoteLines } from './quote-lines.tsx';

/** What a job was offered for last, and the way to offer it anew. */
export function JobQuotes({ job }: { job: JobCard }) {
  const queries = useQueryClient();
  const who = useWho();
  const [isMaking, setMaking] = useState(false);
  const key = ['jobs', 'quotes', job.id];
  const quotes = useQuery({ queryKey: key, queryFn: () => api.quotes(job.id) });
  const take = async (all: QuoteAnswer[]) => {
    queries.setQueryData(key, all);
    setMaking(false);
    await queries.invalidateQueries({ queryKey: ['jobs', 'desk'] });
  };
  const signed = who ? { by: who } : {};
  const [accept, trouble] = useSent(async (number: number) =>
    take(await api.acceptQuote(job.id, { number, ...signed })),
  );
  const [withdraw, withdrawTrouble] = useSent(async (number: number) =>
    take(await api.withdrawQuote(job.id, { number, ...signed })),
  );
  const [quote] = quotes.data ?? [];
  if (quotes.isError) return <p className="mt-3 text-stop">{sentenceOf(quotes.error)}</p>;
  return (
    <section aria-label={t('Quotes')} className="mt-3 flex flex-col gap-2 border-t border-line pt-3">
      {isMaking ? (
        <QuoteForm jobId={job.id} taken={take} leave={() => setMaking(false)} />
      ) : (
        <>
          {quote && (
            <>
              <h4 className="font-semibold">
                {t('Quote {{number}}: {{state}}', { number: quote.number, state: wordOf(quote) })}
              </h4>
              <QuoteLines quote={quote} pdf={`/api/jobs/${job.id}/quotes/${quote.number}/quote.pdf`} />
            </>
          )}
          {trouble}
          {withdrawTrouble}
          <div className="flex flex-wrap gap-2">
            {quote?.state === 'open' && (
              <>
                <Button onClick={() => void accept(quote.number)}>{t('They said yes')}</Button>
                <Button onClick={() => void withdraw(quote.number)}>{t('Withdraw it')}</Button>
              </>
            )}
            <Button onClick={() => setMaking(true)}>{quote ? t('Another quote') : t('Make a quote')}</Button>
          </div>
        </>
      )}
    </section>
  );
}

/** How a quote stands, in words. */
function wordOf({ state, acceptedAt, acceptedBy, validUntil }: QuoteAnswer): string {
  if (state === 'accepted' && acceptedAt) {
    const time = dayAndTimeOf(acceptedAt);
    return acceptedBy
      ? t('{{acceptedBy}} said yes, {{time}}', { acceptedBy, time })
      : t('accepted, {{time}}', { time });
  }
  if (state === 'withdrawn') return t('withdrawn');
  return state === 'open' ? t('waits for a yes') : t('over since {{day}}', { day: dayOf(validUntil) });
}
