import type { DayAnswer, DayBlock, JobCard } from '@lambent/contracts';
import { keepPreviousData, type UseQueryResult, useQuery } from '@tanstack/react-query';
import { create } from 'zustand';
import { api } from '../api.ts';

/** So often a day is asked for again where nothing else tells that it has moved on, in ms. */
const refreshMs = 60_000;

/** A day of the machines, today where none is named. @param day such as 2026-12-24 */
export function useDay(day: string | null): UseQueryResult<DayAnswer> {
  return useQuery({
    queryKey: ['day', day],
    queryFn: () => api.day(day),
    refetchInterval: refreshMs,
    placeholderData: keepPreviousData,
  });
}

/** A job that is pointed at, or dragged, on the Desk. */
export type FocusedJob = Pick<JobCard, 'id' | 'title' | 'machineId' | 'state'> & { readonly seconds: number | null };

/** What of the Desk is pointed at, and what is dragged: the day shows where it would fit. */
export const useDayFocus = create<{ hovered: FocusedJob | null; dragged: FocusedJob | null }>(() => ({
  hovered: null,
  dragged: null,
}));

/** A block and the machine that it waits for. */
export interface GivenBlock extends DayBlock {
  readonly machineId: string;
}

/** The block of a job; undefined where it is on no machine. */
export function blockOf({ machines }: DayAnswer, jobId: string): GivenBlock | undefined {
  return machines
    .flatMap(({ machineId, blocks }) => blocks.map((block) => ({ ...block, machineId })))
    .find((block) => block.jobId === jobId);
}
