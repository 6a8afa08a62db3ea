import * as book from '../book/book.writes.ts';
import * as colourKeys from '../colour-keys/colour-keys.writes.ts';
import * as day from '../day/day.writes.ts';
import * as desk from '../desk/desk.writes.ts';
import * as dropOff from '../drop-off/drop-off.writes.ts';
import * as newFiles from '../drop-off/new-file.writes.ts';
import * as families from '../families/families.writes.ts';
import * as files from '../files/files.writes.ts';
import * as jobFiles from '../job-files/job-files.writes.ts';
import * as jobs from '../jobs/jobs.writes.ts';
import * as machines from '../machines/machines.writes.ts';
import * as mails from '../mails/mails.writes.ts';
import * as messages from '../messages/messages.writes.ts';
import * as people from '../people/people.writes.ts';
import * as quotes from '../quotes/quotes.writes.ts';
import * as runs from '../runs/runs.writes.ts';
import * as settings from '../settings/settings.writes.ts';
import * as sharing from '../sharing/sharing.writes.ts';
import * as shop from '../shop/shop.writes.ts';
import * as thinning from '../thinning/thinning.writes.ts';
import * as timing from '../timing/timing.writes.ts';
import * as probe from './probe.writes.ts';

/** A part of other writes: what it takes is a function, which cannot go to another thread. */
const { changeStock: _, ...bookWrites } = book;

/** Every change of the database, by name. Each is done by the queue in a transaction of its own (write-queue.ts). */
export const writes = {
  ...colourKeys,
  ...day,
  ...desk,
  ...dropOff,
  ...newFiles,
  ...families,
  ...jobs,
  ...jobFiles,
  ...machines,
  ...mails,
  ...messages,
  ...people,
  ...bookWrites,
  ...quotes,
  ...runs,
  ...files,
  ...settings,
  ...probe,
  ...sharing,
  ...shop,
  ...thinning,
  ...timing,
};
export type Writes = typeof writes;

/** What a write is asked with. */
export type ArgumentsOf<Name extends keyof Writes> = Writes[Name] extends (writing: never, ...args: infer A) => unknown
  ? A
  : never;
/** What it comes to. */
export type ResultOf<Name extends keyof Writes> = Awaited<ReturnType<Writes[Name]>>;
