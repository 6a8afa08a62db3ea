import { type DeskShow, type DeskSort, deskShows, deskSorts } from '@lambent/contracts/job-states';
import { useSearchParams } from 'react-router';

/** What of the Desk is asked for; it stands in the address, so that going back comes to it again. */
export interface DeskWish {
  /** Null where nothing was chosen. */
  readonly show: DeskShow | null;
  readonly seek: string;
  readonly sort: DeskSort;
  readonly down: boolean;
  /** Counted from 1. */
  readonly page: number;
}

/** What of the Desk is asked for, and how to ask for something else. Another wish begins on its first page. */
export function useDeskWish(): [DeskWish, (change: Partial<DeskWish>) => void] {
  const [words, setWords] = useSearchParams();
  const sort = deskSorts.find((known) => known === words.get('sort')) ?? 'changed';
  const wish: DeskWish = {
    show: deskShows.find((known) => known === words.get('show')) ?? null,
    seek: words.get('seek') ?? '',
    sort,
    down: words.has('down') ? words.get('down') === 'true' : sort === 'changed',
    page: Math.max(1, Math.floor(Number(words.get('page'))) || 1),
  };
  const ask = (change: Partial<DeskWish>) => {
    const next = { ...wish, page: 1, ...change };
    const said = Object.entries({
      show: next.show,
      seek: next.seek,
      sort: next.sort === 'changed' ? null : next.sort,
      down: next.down === (next.sort === 'changed') ? null : String(next.down),
      page: next.page === 1 ? null : String(next.page),
    }).filter((entry): entry is [string, string] => Boolean(entry[1]));
    // Typing leaves no trail behind it.
    setWords(said, { replace: 'seek' in change });
  };
  return [wish, ask];
}
