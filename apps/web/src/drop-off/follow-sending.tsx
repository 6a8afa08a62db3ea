import type { SendingAnswer } from '@lambent/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../api.ts';
import { nameOfShow } from '../desk/job-states.ts';
import { dropOffPath } from '../routes/public-paths.ts';
import { dayAndTimeOf, dayOf, whenOf } from '../stores/dates.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { SendingMessages } from './sending-messages.tsx';
import { SendingQuotes } from './sending-quotes.tsx';

interface Props {
  readonly token: string;
  readonly sending: SendingAnswer;
  readonly sent: NonNullable<SendingAnswer['sent']>;
}

/** A sending that was sent in: where it stands, its link to keep, and the way to withdraw it. */
export function FollowSending({ token, sending, sent }: Props) {
  const [isAsked, setAsked] = useState(false);
  const [withdraw, trouble] = useSent(async () => {
    await api.withdrawSending(token);
    window.location.assign(dropOffPath);
  });
  const { job, look, wish, looks, readyAt } = sending;
  const facts: readonly (readonly [string, string])[] = [
    [t('How many'), String(wish.copies)],
    [t('Width in mm'), String(look.widthMm)],
    ...(sent.wantedBy ? [[t('Wanted by'), dayOf(sent.wantedBy)] as const] : []),
    ...(wish.ownStock ? [[t('You bring'), wish.ownStock] as const] : []),
    ...(sent.mail ? [[t('Mails go to'), sent.mail] as const] : []),
    ...(sent.notes ? [[t('You said'), sent.notes] as const] : []),
  ];
  return (
    <section aria-label={sent.title} className="mx-auto max-w-2xl rounded-xl border border-line bg-paper p-5">
      <h1 className="text-[22px] font-bold">{sent.title}</h1>
      <p className="mb-3 text-quiet">
        {t('Sent in by {{name}}, {{at}}', { name: sent.name, at: dayAndTimeOf(sent.at) })}
      </p>
      <p className="mb-3 rounded-lg bg-petrol-soft px-3 py-2 text-[15px] font-bold" role="status">
        {job
          ? t('{{state}}, since {{since}}', { state: nameOfShow(job.state), since: dayAndTimeOf(job.since) })
          : t('The workshop has put it away.')}
      </p>
      {job && <SendingQuotes token={token} />}
      {readyAt && <p className="mb-3">{t('Could be ready: {{time}}', { time: whenOf(readyAt) })}</p>}
      <div className="flex h-56 items-center justify-center rounded-lg border border-line bg-[#F4F1E9] p-4">
        <img
          src={`/api/drop-off/${token}/picture.svg?look=${looks}`}
          alt={t('What you sent, as it would burn')}
          className="max-h-full max-w-full"
        />
      </div>
      <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {facts.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-quiet">{name}</dt>
            <dd className="min-w-0 [overflow-wrap:anywhere]">{value}</dd>
          </div>
        ))}
      </dl>
      {job && <SendingMessages token={token} />}
      <label className="mt-4 flex flex-col gap-1">
        <span className="text-quiet">{t('Keep this link: it is the only way back here.')}</span>
        <input
          readOnly
          value={window.location.href}
          onFocus={(event) => event.target.select()}
          className="figures h-9 rounded-lg border border-line bg-raised px-3 focus:border-petrol focus:outline-none"
        />
      </label>
      {trouble}
      <div className="mt-4 flex flex-wrap gap-2">
        <Link to={dropOffPath} className={buttonLook('plain')}>
          {t('Leave another drawing')}
        </Link>
        {isAsked ? (
          <>
            <Button look="danger" onClick={() => void withdraw(undefined)}>
              {t('Withdraw it: this link ends')}
            </Button>
            <Button onClick={() => setAsked(false)}>{t('Leave it there')}</Button>
          </>
        ) : (
          <Button onClick={() => setAsked(true)}>{t('Withdraw it…')}</Button>
        )}
      </div>
    </section>
  );
}
