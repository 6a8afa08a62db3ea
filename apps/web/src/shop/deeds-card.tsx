import type { DeedAnswer, DeedName } from '@lambent/contracts';
import { useInfiniteQuery } from '@tanstack/react-query';
import { api, sentenceOf } from '../api.ts';
import { dayAndTimeOf } from '../stores/dates.ts';
import { useSession } from '../stores/session.ts';
import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { ShopCard } from './shop-card.tsx';

/** So many are told at once; where fewer come, they were the last. */
const atOnce = 100;

/** The record of who did what, for the manager. */
export function DeedsCard() {
  const { person } = useSession();
  return person?.role === 'manager' ? <Deeds /> : null;
}

function Deeds() {
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useInfiniteQuery({
    queryKey: ['deeds'],
    queryFn: ({ pageParam }) => api.deeds(pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.length < atOnce ? undefined : page.at(-1)?.id),
  });
  const deeds = data?.pages.flat() ?? [];
  return (
    <ShopCard title={t('Who did what')} about={t('Saved versions are listed with each job, burns in the record.')}>
      {error && <p className="text-stop">{sentenceOf(error)}</p>}
      {data && deeds.length === 0 && <p className="text-quiet">{t('Nothing yet.')}</p>}
      {deeds.length > 0 && (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled with the keyboard
        <ol className="max-h-72 overflow-y-auto" aria-label={t('Who did what')} tabIndex={0}>
          {deeds.map((deed) => (
            <li key={deed.id} className="flex gap-3 border-t border-line py-1 first:border-0">
              <span className="figures w-28 shrink-0 text-quiet">{dayAndTimeOf(deed.at)}</span>
              <span className="w-32 shrink-0 truncate">{deed.by}</span>
              <span className="min-w-0 flex-1">{sentenceOfDeed(deed)}</span>
            </li>
          ))}
        </ol>
      )}
      {hasNextPage && (
        <Button className="mt-2" disabled={isFetching} onClick={() => void fetchNextPage()}>
          {t('Show earlier ones')}
        </Button>
      )}
    </ShopCard>
  );
}

function sentenceOfDeed({ what, subject }: DeedAnswer): string {
  const text = deedWords()[what];
  return subject === null ? text : `${text}: ${subject}`;
}

const deedWords = (): Readonly<Record<DeedName, string>> => ({
  addJob: t('New job'),
  duplicateJob: t('Duplicated a job'),
  deleteJob: t('Deleted a job'),
  moveJob: t('Moved a job on'),
  describeJob: t('Changed a job’s title, project or day'),
  giveJob: t('Gave a job to a machine, or moved it there'),
  makeQuote: t('Made a quote'),
  acceptQuote: t('Accepted a quote'),
  withdrawQuote: t('Withdrew a quote'),
  writeToSender: t('Wrote to who sent a job in'),
  takeNewFile: t('Took a new file for a job'),
  leaveNewFileOut: t('Left a new file for a job out'),
  takeOffDay: t('Took a job off the day'),
  layShared: t('Laid jobs onto shared sheets'),
  takeJobBack: t('Took a deleted job back'),
  takeJobFile: t('Took a job in from a file'),
  addRun: t('Started a run'),
  putBackSheet: t('Put a sheet back in stock'),
  keepOffcut: t('Kept an offcut'),
  addKey: t('New colour key'),
  changeKey: t('Changed a colour key'),
  deleteKey: t('Deleted a colour key'),
  addMachine: t('New machine'),
  changeMachine: t('Changed a machine'),
  keepTimingCard: t('Measured how a machine moves'),
  addFamily: t('Kept numbers by a name'),
  deleteFamily: t('Deleted numbers that were kept by a name'),
  keepFont: t('Added a font'),
  deleteFont: t('Deleted a font'),
  addMaterial: t('New material'),
  changeMaterial: t('Changed a material'),
  addRecipe: t('New recipe'),
  changeRecipe: t('Changed a recipe'),
  keepKerf: t('Kept a kerf'),
  keepFit: t('Kept a clearance'),
  undoBookChange: t('Undid a change of the book'),
  takeBookIn: t('Took recipes in from a file'),
  settle: t('Changed the settings of the shop'),
  emptyShop: t('Emptied the shop'),
  startSession: t('Signed in'),
  endSessionsOf: t('Signed out everywhere'),
  invite: t('Made an invitation'),
  changePerson: t('Changed what somebody may do'),
  changePassword: t('Changed the password'),
});
