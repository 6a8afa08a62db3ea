import type { DropOffAnswer, SendingAnswer } from '@lambent/contracts';
import { isBeforeBurning } from '@lambent/contracts/job-states';
import { FileUp } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { nameOfShow } from '../desk/job-states.ts';
import { dropOffPath } from '../routes/public-paths.ts';
import { dayAndTimeOf, dayOf, whenOf } from '../stores/dates.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { FileButton } from '../ui/file-button.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { acceptedFiles, expectSmall } from './left-file.ts';
import { senderApi } from './sender-api.ts';
import { SendingMessages } from './sending-messages.tsx';
import { SendingQuotes } from './sending-quotes.tsx';

interface Props {
  readonly token: string;
  readonly about: DropOffAnswer;
  readonly sending: SendingAnswer;
  readonly sent: NonNullable<SendingAnswer['sent']>;
}

/** A sending that was sent in: where it stands, its link to keep, and the way to withdraw it. */
export function FollowSending({ token, about, sending, sent }: Props) {
  const navigate = useNavigate();
  const [isAsked, setAsked] = useState(false);
  const [isReading, setReading] = useState(false);
  const [withdraw, trouble] = useSent(async () => {
    await senderApi.withdrawSending(token);
    window.location.assign(dropOffPath);
  });
  const [begin, beginTrouble] = useSent(async (file: File) => {
    expectSmall(file, about.largestMb);
    setReading(true);
    try {
      const { token: draft } = await senderApi.beginNewFile(token, file);
      void navigate(`${dropOffPath}/${token}?file=${draft}`);
    } finally {
      setReading(false);
    }
  });
  const { job, look, wish, looks, readyAt, newFile } = sending;
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
      {newFile && (
        <p className="mt-3 rounded-lg border border-petrol px-3 py-2">
          {t('You sent a new file, {{file}}, {{at}}. The workshop has not decided yet.', {
            file: newFile.file,
            at: dayAndTimeOf(newFile.at),
          })}
        </p>
      )}
      {job && isBeforeBurning(job.state) && (
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <FileButton accept={acceptedFiles} testId="new-file" take={(file) => void begin(file)}>
            <FileUp size={15} aria-hidden />
            {t('Send a new file')}
          </FileButton>
          <span className="text-quiet">
            {isReading ? t('Reading it…') : t('You see what changes before you send it.')}
          </span>
          {beginTrouble}
        </div>
      )}
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
