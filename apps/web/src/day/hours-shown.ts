import type { DayAnswer } from '@lambent/contracts';
import type { Span } from '@lambent/core/day';
import { msSpan } from './lay-in.ts';

const hourMs = 3_600_000;
/** As much is shown of the coming hours: the shorter where all that waits ends in it. */
const nearMs = [2 * hourMs, 4 * hourMs] as const;

/** The coming hours: from now on, or from when the shop opens; the quarter of an hour before that is shown, too. */
export function nearHours({ now, openings, machines }: DayAnswer): Span {
  const time = Date.parse(now);
  const next = openings.map(msSpan).find(({ until }) => until > time);
  const from = Math.floor((Math.max(time, next?.from ?? time) - hourMs / 4) / (hourMs / 4)) * (hourMs / 4);
  const isShort = machines.every(({ freeAt }) => Date.parse(freeAt) < from + nearMs[0]);
  return { from, until: from + nearMs[isShort ? 0 : 1] };
}

/** A day from when the shop opens until it closes, and whatever burns before and after that, in whole hours. */
export function dayHours(day: DayAnswer): Span {
  const whole = msSpan(day.whole);
  const within = ({ from, until }: Span) => until > whole.from && from < whole.until;
  const open = day.openings.map(msSpan).filter(within);
  const busy = day.machines.flatMap(({ runs, blocks }) => [...runs, ...blocks].map(msSpan)).filter(within);
  const all = [...open, ...busy];
  if (all.length === 0) return { from: whole.from + 9 * hourMs, until: whole.from + 18 * hourMs };
  const from = Math.max(whole.from, Math.min(...all.map((span) => span.from)));
  const until = Math.min(whole.until, Math.max(...all.map((span) => span.until)));
  return {
    from: whole.from + Math.floor((from - whole.from) / hourMs) * hourMs,
    until: whole.from + Math.ceil((until - whole.from) / hourMs) * hourMs,
  };
}

/** The times that are marked on a strip: whole hours, half ones of a short stretch, every second or third of a long one. */
export function marksIn({ from, until }: Span): number[] {
  const hours = (until - from) / hourMs;
  const step = hours <= 4 ? hourMs / 2 : Math.ceil(hours / 12) * hourMs;
  const marks: number[] = [];
  for (let time = Math.ceil(from / step) * step; time <= until; time += step) marks.push(time);
  return marks;
}

/** Where a time is on a strip, from 0 to 1; beyond it where it is not shown. */
export function shareAt(time: number, { from, until }: Span): number {
  return (time - from) / (until - from);
}

/** How wide the names of the machines are, before the hours begin, in pixels. */
export const namesWidth = 124;
