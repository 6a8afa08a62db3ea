import * as colourKeys from '../colour-keys/colour-keys.writes.ts';
import * as jobs from '../jobs/jobs.writes.ts';
import * as book from '../materials/book.writes.ts';
import * as runs from '../runs/runs.writes.ts';
import * as files from './files.writes.ts';
import * as shop from './shop.writes.ts';
import * as thinning from './thinning.writes.ts';

/** A part of other writes: what it takes is a function, which cannot go to another thread. */
const { changeStock: _, ...bookWrites } = book;

/** Every change of the database, by name. Each is done by the queue in a transaction of its own (write-queue.ts). */
export const writes = { ...colourKeys, ...jobs, ...bookWrites, ...runs, ...files, ...shop, ...thinning };
export type Writes = typeof writes;
