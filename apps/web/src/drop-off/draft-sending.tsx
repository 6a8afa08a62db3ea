import type { DropOffAnswer, SendingAnswer, SendingWishDto } from '@lambent/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useRef, useState } from 'react';
import { Link } from 'react-router';
import { DifferenceView } from '../revisions/difference-view.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { SeenDrawing } from './seen-drawing.tsx';
import { senderApi } from './sender-api.ts';
import { SendingCost } from './sending-cost.tsx';
import { SendingWish } from './sending-wish.tsx';

interface Props {
  readonly token: string;
  readonly sending: SendingAnswer;
  readonly about: DropOffAnswer;
  readonly heading: string;
  /** Where another file is chosen. */
  readonly back: string;
  /** What sends it in. */
  readonly children: ReactNode;
}

/** A drawing that was left and not sent in yet: what the shop sees in it, and how it is to be made. */
export function DraftSending({ token, sending, about, heading, back, children }: Props) {
  const queries = useQueryClient();
  const [isLooking, setLooking] = useState(false);
  const place = ['sending', token];
  /** Which of the looks was asked for last. */
  const last = useRef(0);
  const [ask, trouble] = useSent(async (what: Partial<SendingWishDto>) => {
    const before = queries.getQueryData<SendingAnswer>(place) ?? sending;
    const wish = { ...before.wish, ...what };
    // What was chosen shows at once; what it comes to follows.
    queries.setQueryData(place, { ...before, wish });
    setLooking(true);
    last.current++;
    const turn = last.current;
    try {
      const seen = await senderApi.wishSending(token, wish);
      // Where something else was chosen meanwhile, that is on its way.
      if (turn === last.current) queries.setQueryData(place, seen);
    } catch (error) {
      queries.setQueryData(place, before);
      throw error;
    } finally {
      if (turn === last.current) setLooking(false);
    }
  });
  const change = (what: Partial<SendingWishDto>) => void ask(what);
  return (
    <>
      <h1 className="text-[22px] font-bold">{heading}</h1>
      <p className="mb-4 text-quiet">{t('You see what we see before you send it.')}</p>
      <div className="grid items-start gap-4 lg:grid-cols-2">
        <section aria-label={t('What you sent')} className="rounded-xl border border-line bg-paper p-5">
          <div className="mb-3 flex items-baseline gap-3">
            <h2 className="text-[15px] font-bold">{t('What you sent')}</h2>
            <span className="ml-auto min-w-0 truncate text-quiet">{sending.file}</span>
            <Link to={back} className="shrink-0 font-semibold text-petrol">
              {t('Another file')}
            </Link>
          </div>
          <SeenDrawing
            token={token}
            sending={sending}
            tone={about.materials.find(({ id }) => id === sending.wish.materialId)?.tone}
            isLooking={isLooking}
            change={change}
          />
          {sending.difference && (
            <section aria-label={t('What changes')} className="border-t border-line pt-3">
              <h2 className="mb-2 text-[15px] font-bold">{t('What changes')}</h2>
              <DifferenceView
                difference={sending.difference}
                picture={`/api/drop-off/${token}/difference.svg?look=${sending.looks}`}
              />
            </section>
          )}
        </section>
        <section aria-label={t('What it is to be')} className="rounded-xl border border-line bg-paper p-5">
          <h2 className="mb-3 text-[15px] font-bold">{t('What it is to be')}</h2>
          <SendingWish sending={sending} about={about} change={change} />
          {trouble}
          <SendingCost look={sending.look} currency={about.currency} readyAt={sending.readyAt} isLooking={isLooking} />
          {children}
        </section>
      </div>
    </>
  );
}
