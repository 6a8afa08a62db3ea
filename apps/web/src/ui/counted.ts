import { t } from '../words/words.ts';

/** How many there are of a thing, such as `1 job` or `3 jobs`. @param thing in English: the catalogue has it with its count */
export function counted(count: number, thing: string): string {
  return t(count === 1 ? `{{count}} ${thing}` : `{{count}} ${thing}s`, { count });
}
