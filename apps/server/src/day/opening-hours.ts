import { TZDate } from '@date-fns/tz';
import type { Settings } from '@lambent/contracts';
import type { Span } from '@lambent/core/day';

type Hours = Pick<Settings, 'opensAt' | 'closesAt' | 'openDays' | 'timeZone'>;

/** The zone of a shop's clock: this computer's where none is settled. */
function zoneOf({ timeZone }: Hours): string {
  return timeZone || Intl.DateTimeFormat().resolvedOptions().timeZone;
}

/** A day by the shop's clock, such as 2026-12-24. @param ms since 1970 */
export function dayOf(ms: number, hours: Hours): string {
  const { year, month, date } = partsOf(ms, hours);
  return [year, month + 1, date].map((part) => String(part).padStart(2, '0')).join('-');
}

/** From when until when a day is, by the shop's clock. A day on which clocks change has 23 or 25 hours. @param day such as 2026-12-24 */
export function spanOfDay(day: string, hours: Hours): Span {
  const [year, month, date] = day.split('-').map(Number);
  const time = (days: number) => timeOf({ year, month: month - 1, date: date + days }, '00:00', hours);
  return { from: time(0), until: time(1) };
}

/** When the shop is open, from the day before a time on; where it closes before it opens, that is on the next day. */
export function openingsFrom(ms: number, days: number, hours: Hours): Span[] {
  const { year, month, date } = partsOf(ms, hours);
  const closesNextDay = hours.closesAt <= hours.opensAt ? 1 : 0;
  const spans: Span[] = [];
  for (let day = -1; day < days; day++) {
    const weekday = new Date(Date.UTC(year, month, date + day)).getUTCDay() || 7;
    if (!hours.openDays.includes(weekday)) continue;
    const from = timeOf({ year, month, date: date + day }, hours.opensAt, hours);
    const until = timeOf({ year, month, date: date + day + closesNextDay }, hours.closesAt, hours);
    const last = spans.at(-1);
    if (last && last.until >= from) spans[spans.length - 1] = { from: last.from, until };
    else spans.push({ from, until });
  }
  return spans;
}

interface DateParts {
  readonly year: number;
  /** Counted from 0. */
  readonly month: number;
  /** May be beyond the days of its month. */
  readonly date: number;
}

function partsOf(ms: number, hours: Hours): DateParts {
  const local = new TZDate(ms, zoneOf(hours));
  return { year: local.getFullYear(), month: local.getMonth(), date: local.getDate() };
}

/** A time of a day by the shop's clock, in ms since 1970. @param clock such as 09:30 */
function timeOf({ year, month, date }: DateParts, clock: string, hours: Hours): number {
  const [hour, minute] = clock.split(':').map(Number);
  return new TZDate(year, month, date, hour, minute, zoneOf(hours)).getTime();
}
