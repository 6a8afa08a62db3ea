import type { MailAnswer, MailsAnswer, Settings } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api, sentenceOf } from '../api.ts';
import { dayAndTimeOf } from '../stores/dates.ts';
import { useSession } from '../stores/session.ts';
import { Button } from '../ui/button.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { LineField } from './line-field.tsx';
import { ShopCard } from './shop-card.tsx';
import type { Settle } from './use-settings.ts';

/** From where the shop writes mails, and how those that it wrote stand. */
export function MailsCard({ settings, settle }: { settings: Settings; settle: Settle }) {
  const { person, hasManager } = useSession();
  return (
    <ShopCard
      title={t('Mails')}
      about={t(
        'Who sends a drawing in and gives an address is told by mail what happens with it, and the shop is told what came in.',
      )}
    >
      <LineField
        label={t('Mail address of the shop (empty: no mails)')}
        value={settings.mailAddress}
        most={254}
        placeholder={t('Such as: workshop@example.org')}
        settle={(mailAddress) => void settle({ mailAddress })}
      />
      {(!hasManager || person?.role === 'manager') && <Written address={settings.mailAddress} />}
    </ShopCard>
  );
}

/** The mails that were written last. */
function Written({ address }: { address: string }) {
  const queries = useQueryClient();
  const key = ['mails'];
  // A mail that waits is sent soon.
  const told = useQuery({
    queryKey: key,
    queryFn: api.mails,
    refetchInterval: ({ state }) => (state.data?.waiting ? waitsMs : false),
  });
  const [again, trouble] = useSent(async () => {
    queries.setQueryData<MailsAnswer>(key, await api.sendMailsAgain());
  });
  if (told.isError) return <p className="mt-3 text-stop">{sentenceOf(told.error)}</p>;
  if (!told.data) return null;
  const { folder, waiting, givenUp, mails } = told.data;
  return (
    <div className="mt-3">
      {(address !== '' || mails.length > 0) && (
        <p className="text-quiet [overflow-wrap:anywhere]">
          {folder === null
            ? t('They are sent by the mail server that the computer was told.')
            : t('No mail server is set: they are kept as files in {{folder}}.', { folder })}
        </p>
      )}
      {waiting + givenUp > 0 && (
        <div className="mt-2 flex flex-wrap items-center gap-3">
          <p className={givenUp > 0 ? 'text-stop' : 'text-warn'}>
            {t('Waiting: {{waiting}}. Given up: {{givenUp}}.', { waiting, givenUp })}
          </p>
          <Button onClick={() => void again(undefined)}>{t('Try them again')}</Button>
        </div>
      )}
      {trouble}
      {mails.length > 0 && (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled with the keyboard
        <ol className="mt-2 max-h-60 overflow-y-auto" aria-label={t('Mails written last')} tabIndex={0}>
          {mails.map((mail) => (
            <li key={mail.id} className="border-t border-line py-1.5 first:border-0">
              <p className="flex gap-3">
                <span className="min-w-0 flex-1 truncate">{mail.subject}</span>
                <span className={`shrink-0 ${looks[mail.state]}`}>{stateOf(mail, folder !== null)}</span>
              </p>
              <p className="flex gap-3 text-[12px] text-quiet">
                <span className="min-w-0 flex-1 truncate">{t('to {{address}}', { address: mail.to })}</span>
                <span className="figures shrink-0">{dayAndTimeOf(mail.sentAt ?? mail.at)}</span>
              </p>
              {mail.trouble && <p className="text-[12px] text-stop [overflow-wrap:anywhere]">{mail.trouble}</p>}
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}

/** How often it is looked whether a mail that waits was sent, in ms. */
const waitsMs = 5000;

const looks = { waiting: 'text-warn', sent: 'text-settled', 'given up': 'text-stop' } as const;

/** How a mail stands. @param isKept whether mails are kept as files, where no mail server takes them */
function stateOf({ state }: MailAnswer, isKept: boolean): string {
  return { waiting: t('waits'), sent: isKept ? t('kept as a file') : t('sent'), 'given up': t('given up') }[state];
}
