import { useQuery } from '@tanstack/react-query';
import { api, sentenceOf } from '../api.ts';
import { BackupsCard } from '../shop/backups-card.tsx';
import { DeedsCard } from '../shop/deeds-card.tsx';
import { DropOffCard } from '../shop/drop-off-card.tsx';
import { HoursCard } from '../shop/hours-card.tsx';
import { InvoicesCard } from '../shop/invoices-card.tsx';
import { MailsCard } from '../shop/mails-card.tsx';
import { PeopleCard } from '../shop/people-card.tsx';
import { Prices } from '../shop/prices.tsx';
import { QuotesCard } from '../shop/quotes-card.tsx';
import { SignInsCard } from '../shop/sign-ins-card.tsx';
import { useSettings } from '../shop/use-settings.ts';
import { FileNamesCard, WaysCard } from '../shop/ways-card.tsx';
import { useSession } from '../stores/session.ts';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { t } from '../words/words.ts';

/** What holds for the whole shop: its name, its people, its prices, how it counts and writes, its backups. */
export function ShopRoute() {
  const asked = useQuery({ queryKey: ['settings'], queryFn: api.settings });
  const { settings, settle } = useSettings();
  const { hasManager } = useSession();
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('Shop')}</PageTitle>
      <PageBar />
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-[1180px] px-6 py-6">
          <h1 className="mb-4 text-xl font-bold">{t('Shop')}</h1>
          {asked.isError && <Notice level="blocks">{sentenceOf(asked.error)}</Notice>}
          {settings && (
            <div className="grid items-start gap-4 lg:grid-cols-2">
              <div className="flex flex-col gap-4">
                <WaysCard settings={settings} settle={settle} />
                {!hasManager && <PeopleCard people={settings.people} settle={settle} />}
                <SignInsCard />
                <FileNamesCard settings={settings} settle={settle} />
                <BackupsCard days={settings.backupDays} settle={(backupDays) => void settle({ backupDays })} />
                <DropOffCard settings={settings} settle={settle} />
                <MailsCard settings={settings} settle={settle} />
              </div>
              <div className="flex flex-col gap-4">
                <Prices settings={settings} settle={settle} />
                <HoursCard settings={settings} settle={settle} />
                <QuotesCard settings={settings} settle={settle} />
                <InvoicesCard />
                <DeedsCard />
              </div>
            </div>
          )}
        </div>
      </main>
    </div>
  );
}
