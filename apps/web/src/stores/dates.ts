import type { DateOrder } from '@lambent/contracts';
import { differenceInCalendarDays, format, parseISO } from 'date-fns';
import { create } from 'zustand';
import { language } from '../words/language.ts';

const place = 'dates';

const patterns: Readonly<Record<DateOrder, { readonly short: string; readonly long: string }>> = {
  // A number that counts has a point behind it in German.
  'day first': language === 'de' ? { short: 'd. MMM', long: 'd. MMM yyyy' } : { short: 'd MMM', long: 'd MMM yyyy' },
  'month first': { short: 'MMM d', long: 'MMM d, yyyy' },
  'year first': { short: 'MM-dd', long: 'yyyy-MM-dd' },
};

/** As the shop writes days: what this browser heard last, until the server says. */
const store = create<{ readonly order: DateOrder }>(() => {
  const known = localStorage.getItem(place);
  return { order: known !== null && Object.hasOwn(patterns, known) ? (known as DateOrder) : 'day first' };
});

/** Writes days as the shop has settled. */
export function takeDateOrder(order: DateOrder): void {
  localStorage.setItem(place, order);
  store.setState({ order });
}

type Time = string | number | Date;

/** Such as `27 Nov`. */
export function dayOf(time: Time): string {
  return format(new Date(time), patterns[store.getState().order].short);
}

/** Such as `14:05`. */
export function timeOf(time: Time): string {
  return format(new Date(time), 'HH:mm');
}

/** Such as `Fri 27 Nov`. @param day such as 2026-11-27 */
export function weekdayOf(day: string): string {
  return `${format(parseISO(day), 'EEE')} ${dayOf(parseISO(day))}`;
}

/** Such as `14:05` of today, `Fri 14:05` of the days until a week from now, else `27 Nov, 14:05`. */
export function whenOf(time: Time): string {
  const days = differenceInCalendarDays(new Date(time), new Date());
  if (days === 0) return timeOf(time);
  return days > 0 && days < 7 ? format(new Date(time), 'EEE HH:mm') : dayAndTimeOf(time);
}

/** Such as `27 Nov 2026`. */
export function wholeDayOf(time: Time): string {
  return format(new Date(time), patterns[store.getState().order].long);
}

/** Such as `27 Nov, 14:05`. */
export function dayAndTimeOf(time: Time): string {
  return `${dayOf(time)}, ${format(new Date(time), 'HH:mm')}`;
}

/** Such as `27 Nov 2026, 14:05`. */
export function wholeDayAndTimeOf(time: Time): string {
  return `${wholeDayOf(time)}, ${format(new Date(time), 'HH:mm')}`;
}
