import type { DayAnswer, GiveJobDto } from '@lambent/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { t } from '../words/words.ts';
import { blockOf, type FocusedJob, type GivenBlock } from './use-day.ts';

/** Where a job is put: on which machine, before which job of it, and when at the earliest. */
export type DayPlace = Omit<GiveJobDto, 'seen'>;

/** Gives jobs to machines, moves them there and takes them off again; each can be undone. */
export function useGive() {
  const queries = useQueryClient();
  const today = () => queries.fetchQuery({ queryKey: ['day', null], queryFn: () => api.day(null) });
  const change = async (work: () => Promise<unknown>): Promise<boolean> => {
    try {
      await work();
      return true;
    } catch (error) {
      toast.error(sentenceOf(error));
      return false;
    } finally {
      await Promise.all([
        queries.invalidateQueries({ queryKey: ['day'] }),
        queries.invalidateQueries({ queryKey: ['jobs'] }),
      ]);
    }
  };
  const put = async (jobId: string, place: DayPlace | null, seen: number | null) => {
    if (place) await api.giveJob(jobId, { ...place, seen });
    else if (seen !== null) await api.takeOffDay(jobId, seen);
  };
  /** @param known where it is as the screen shows it; undefined where it is on no machine */
  return async (
    { id, title }: Pick<FocusedJob, 'id' | 'title'>,
    place: DayPlace | null,
    known: GivenBlock | undefined,
  ): Promise<void> => {
    const day = queries.getQueryData<DayAnswer>(['day', null]);
    const before = known && day ? placeOf(day, known) : null;
    if (!(await change(() => put(id, place, known?.seen ?? null)))) return;
    const undo = () => void change(async () => put(id, before, blockOf(await today(), id)?.seen ?? null));
    const words = place ? t('“{{title}}” was moved.', { title }) : t('“{{title}}” was taken off the day.', { title });
    toast(words, { action: { label: t('Undo'), onClick: undo } });
  };
}

/** Where a block stands now. */
function placeOf({ machines }: DayAnswer, { jobId, machineId, notBefore }: GivenBlock): DayPlace {
  const blocks = machines.find((machine) => machine.machineId === machineId)?.blocks ?? [];
  const next = blocks[blocks.findIndex((block) => block.jobId === jobId) + 1];
  return { machineId, ...(next ? { beforeJobId: next.jobId } : {}), ...(notBefore ? { notBefore } : {}) };
}
