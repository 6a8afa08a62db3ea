import { CloseButton, Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import type { ReactNode } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { t } from '../words/words.ts';
import { openJob } from '../workers/work.ts';
import { useBench, useBenchActions } from './context.ts';

/** Every version of the job, to go back to; going back is an edit like any other, and can be undone. */
export function Versions({ children }: { children: ReactNode }) {
  return (
    <Popover className="inline">
      <PopoverButton
        className="rounded underline decoration-dotted underline-offset-2 hover:text-petrol"
        title={t('Versions')}
      >
        {children}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 6 }}
        className="z-30 max-h-96 w-72 overflow-auto rounded-xl border border-line bg-paper p-2 shadow-float"
      >
        <VersionList />
      </PopoverPanel>
    </Popover>
  );
}

function VersionList() {
  const actions = useBenchActions();
  const jobId = useBench((state) => state.jobId);
  const current = useBench((state) => state.stored.version);
  const versions = useQuery({ queryKey: ['versions', jobId, current], queryFn: () => api.versions(jobId) });
  const goBack = async (number: number) => {
    try {
      const { document } = await openJob(jobId, number);
      actions.edit(t('back to version {{number}}', { number }), () => document);
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  };
  if (versions.isError) return <p className="p-2 text-stop">{sentenceOf(versions.error)}</p>;
  return (
    <ul aria-label={t('Versions')}>
      {versions.data?.map(({ number, edit, savedAt }) => (
        <li key={number}>
          <CloseButton
            disabled={number === current}
            onClick={() => void goBack(number)}
            className="flex w-full items-baseline gap-2 rounded-lg px-2 py-1.5 text-left hover:bg-petrol-soft disabled:font-bold"
          >
            <span className="figures w-7 shrink-0 text-right text-[12px] text-quiet">{number}</span>
            <span className="flex-1 truncate">{edit}</span>
            <span className="figures text-[12px] text-quiet">{format(new Date(savedAt), 'HH:mm:ss')}</span>
          </CloseButton>
        </li>
      ))}
    </ul>
  );
}
