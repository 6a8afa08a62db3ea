import type { DeskPage } from '@lambent/contracts';
import { type DeskShow, deskShows } from '@lambent/contracts/job-states';
import { t } from '../words/words.ts';
import { nameOfShow } from './job-states.ts';

interface Props {
  readonly shown: DeskShow;
  readonly counts: DeskPage['counts'] | undefined;
  readonly show: (show: DeskShow) => void;
}

/** In the order of the chips: what wants the operator comes first. */
const inOrder: readonly DeskShow[] = ['wants you', ...deskShows.filter((show) => show !== 'wants you')];

/** What of the Desk is shown, with how many there are; states that no job is in are left out. */
export function DeskFilters({ shown, counts, show }: Props) {
  const offered = inOrder.filter(
    (name) => name === shown || name === 'wants you' || name === 'all' || (counts?.[name] ?? 0) > 0,
  );
  return (
    <fieldset className="flex flex-wrap gap-2" aria-label={t('Which jobs are shown')}>
      {offered.map((name) => (
        <button
          key={name}
          type="button"
          aria-pressed={name === shown}
          onClick={() => show(name)}
          className="h-8 rounded-full border border-line bg-raised px-3.5 hover:border-petrol aria-pressed:border-petrol aria-pressed:bg-petrol-soft aria-pressed:font-semibold aria-pressed:text-petrol pointer-coarse:h-11"
        >
          {nameOfShow(name)} {counts && <span className="figures">{counts[name]}</span>}
        </button>
      ))}
    </fieldset>
  );
}
