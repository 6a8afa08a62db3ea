import type { RunAnswer } from '@lambent/contracts';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../api.ts';
import { t } from '../../words/words.ts';
import { work } from '../../workers/work.ts';
import { useBench } from '../context.ts';

/** The ways of the head in the program of a run. */
export function useProgramWays({ id, machineId }: Pick<RunAnswer, 'id' | 'machineId'>) {
  const machine = useBench((state) => state.shop.machines.find((known) => known.id === machineId));
  return useQuery({
    queryKey: ['program ways', id],
    queryFn: async ({ signal }) => {
      if (!machine) throw new Error(t('Its machine is not the shop’s any more.'));
      return work('programWays', [await api.program(id), machine], { signal });
    },
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
}
