import type { ColourKey } from '@lambent/core/colours';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf } from '../api.ts';
import { Choice } from '../ui/choice.tsx';
import { Notice } from '../ui/notice.tsx';
import { t } from '../words/words.ts';
import { work } from '../workers/work.ts';

/** Tries a key, as it is being edited, on any drawing of the Desk: a picture, and what it would mean. */
export function KeyTrial({ keyOf }: { keyOf: ColourKey }) {
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: api.jobs });
  const [jobId, setJobId] = useState<string | null>(null);
  const chosen = jobId ?? jobs.data?.[0]?.id ?? null;
  const trial = useQuery({
    queryKey: ['key-trial', chosen, keyOf],
    enabled: chosen !== null,
    gcTime: 0,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      const [job, machines, materials, keys] = await Promise.all([
        api.jobJson(chosen as string),
        api.machines(),
        api.materials(),
        api.keys(),
      ]);
      return work('underKey', [job, { machines, materials, keys }, keyOf], { signal });
    },
  });
  return (
    <aside className="border-l border-line bg-paper px-4 py-5" aria-label={t('The key on a drawing')}>
      <div className="sticky top-5">
        <h2 className="mb-2 font-bold">{t('On a drawing')}</h2>
        <Choice
          label={t('Try the key on')}
          value={chosen}
          empty={t('No job yet')}
          options={(jobs.data ?? []).map(({ id, title }) => ({ value: id, text: title }))}
          choose={setJobId}
        />
        {trial.isError && (
          <div className="mt-3">
            <Notice level="blocks">{sentenceOf(trial.error)}</Notice>
          </div>
        )}
        {trial.data && (
          <>
            <img
              src={`data:image/svg+xml,${encodeURIComponent(trial.data.svg)}`}
              alt={t('The drawing as this key reads it')}
              data-testid="key-trial"
              className={`mt-3 max-h-[360px] w-full rounded-[10px] border border-line bg-white object-contain p-2 ${trial.isFetching ? 'opacity-60' : ''}`}
            />
            <p className={`mt-2 font-semibold ${trial.data.undecided > 0 ? 'text-stop' : ''}`}>
              {trial.data.undecided === 0
                ? t('Every item has a meaning.')
                : t(trial.data.undecided === 1 ? '1 item has no meaning.' : '{{undecided}} items have no meaning.', {
                    undecided: trial.data.undecided,
                  })}
            </p>
            <p className="mt-1 text-quiet">
              {trial.data.change.moves.length === 0
                ? t('Nothing changes against the key this job goes by.')
                : t('Against the key this job goes by:')}
            </p>
            <ul className="mt-1 text-[12.5px]">
              {trial.data.change.moves.slice(0, 12).map(({ from, to, itemIds }) => (
                <li key={`${from} ${to}`} className="flex justify-between gap-2">
                  <span className="truncate">
                    {from ?? t('no meaning')} → {to ?? t('no meaning')}
                  </span>
                  <span className="figures">{itemIds.length}</span>
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </aside>
  );
}
