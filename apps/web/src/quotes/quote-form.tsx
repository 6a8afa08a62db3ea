import type { QuoteAnswer, QuoteDraft, QuoteLineDto } from '@lambent/contracts';
import { useQuery } from '@tanstack/react-query';
import { Plus, X } from 'lucide-react';
import { type FormEvent, useId, useState } from 'react';
import { api, sentenceOf } from '../api.ts';
import { useWho } from '../stores/who.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { formatMoney } from '../ui/figures.ts';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { said, t } from '../words/words.ts';

interface Props {
  readonly jobId: string;
  readonly taken: (all: QuoteAnswer[]) => Promise<void>;
  readonly leave: () => void;
}

/** A quote that is made: it begins with what the job costs by the price list, and each line can be changed. */
export function QuoteForm({ jobId, taken, leave }: Props) {
  const [typed, setTyped] = useState<QuoteDraft | null>(null);
  const who = useWho();
  const ids = { day: useId(), terms: useId() };
  const begun = useQuery({
    queryKey: ['jobs', 'quote-draft', jobId],
    queryFn: () => api.quoteDraft(jobId),
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const draft = typed ?? begun.data;
  const [send, trouble] = useSent(async (quote: QuoteDraft) =>
    taken(await api.makeQuote(jobId, { ...quote, ...(who ? { by: who } : {}) })),
  );
  if (begun.isError) return <p className="text-stop">{sentenceOf(begun.error)}</p>;
  if (!draft) return <p className="text-quiet">{t('Working out what it costs…')}</p>;
  const { lines, validUntil, terms } = draft;
  const change = (part: Partial<QuoteDraft>) => setTyped({ ...draft, ...part });
  const changeLine = (i: number, part: Partial<QuoteLineDto>) =>
    change({ lines: lines.map((line, j) => (i === j ? { ...line, ...part } : line)) });
  const total = lines.reduce((sum, { amount }) => sum + Math.round(amount * 100), 0) / 100;
  return (
    <form
      aria-label={t('New quote')}
      className="flex flex-col gap-2"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        void send(draft);
      }}
    >
      {lines.map(({ what, amount }, i) => (
        <div key={i} className="flex items-center gap-1.5">
          <input
            aria-label={t('What line {{number}} is for', { number: i + 1 })}
            value={said(what)}
            maxLength={120}
            onChange={(event) => changeLine(i, { what: event.target.value })}
            className="h-8 min-w-0 flex-1 rounded-lg border border-line bg-raised px-2 focus:border-petrol focus:outline-none"
          />
          <div className="w-24 shrink-0">
            <TypedField
              bare
              label={t('Amount of line {{number}}', { number: i + 1 })}
              text={formatMoney(amount, { currency: '' })}
              parse={(text) => parsePlain(text, '', t('Type an amount.'))}
              commit={(value) => {
                if (!(Math.abs(value) <= 1_000_000)) return t('From minus a million to a million.');
                changeLine(i, { amount: Math.round(value * 100) / 100 });
                return undefined;
              }}
            />
          </div>
          <IconButton
            label={t('Leave line {{number}} out', { number: i + 1 })}
            onClick={() => change({ lines: lines.filter((_, j) => i !== j) })}
          >
            <X size={14} aria-hidden />
          </IconButton>
        </div>
      ))}
      <div className="flex items-center">
        <Button look="quiet" onClick={() => change({ lines: [...lines, { what: '', amount: 0 }] })}>
          <Plus size={14} aria-hidden />
          {t('Another line')}
        </Button>
        <p className="ml-auto">
          {t('In all')} <span className="figures font-bold">{formatMoney(total, { currency: '' })}</span>
        </p>
      </div>
      <label htmlFor={ids.day} className="text-quiet">
        {t('Holds until')}
      </label>
      <input
        id={ids.day}
        type="date"
        value={validUntil}
        onChange={(event) => change({ validUntil: event.target.value })}
        className="h-8 rounded-lg border border-line bg-raised px-2 focus:border-petrol focus:outline-none"
      />
      <label htmlFor={ids.terms} className="text-quiet">
        {t('Terms')}
      </label>
      <textarea
        id={ids.terms}
        rows={2}
        maxLength={2000}
        value={terms}
        onChange={(event) => change({ terms: event.target.value })}
        className="rounded-lg border border-line bg-raised px-2 py-1 focus:border-petrol focus:outline-none"
      />
      {trouble}
      <div className="flex gap-2">
        <Button type="submit" look="main">
          {t('Offer it')}
        </Button>
        <Button onClick={leave}>{t('Leave it')}</Button>
      </div>
    </form>
  );
}
