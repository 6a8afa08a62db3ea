import type { DeedName } from '@lambent/contracts';
import { DeedEntity } from './deed.entity.ts';
import type { ArgumentsOf, ResultOf } from './writes.ts';
import type { Writing } from './writing.ts';

/** Where the name of what something is done to stands. */
const names = {
  job: 'SELECT title AS name FROM jobs WHERE id = ?',
  run: 'SELECT jobs.title AS name FROM runs JOIN jobs ON jobs.id = runs.jobId WHERE runs.id = ?',
  person: 'SELECT name FROM people WHERE id = ?',
  machine: "SELECT json_extract(definition, '$.name') AS name FROM machines WHERE id = ?",
  'colour key': "SELECT json_extract(definition, '$.name') AS name FROM colour_keys WHERE id = ?",
  family: 'SELECT name FROM number_families WHERE id = ?',
  font: 'SELECT family AS name FROM fonts WHERE id = ?',
  material: 'SELECT name FROM materials WHERE id = ?',
} as const;

type Subject = readonly [kind: keyof typeof names, id: string];

/** To what each write is done that the record tells of. Saved versions are not among them: they are a record of their own. */
const subjects: {
  readonly [Name in DeedName]: (
    args: ArgumentsOf<Name>,
    done: ResultOf<Name> | undefined,
  ) => Subject | null | undefined;
} = {
  addJob: ([{ id }]) => ['job', id],
  duplicateJob: ([, copyId]) => ['job', copyId],
  deleteJob: ([id]) => ['job', id],
  moveJob: ([id]) => ['job', id],
  describeJob: ([id]) => ['job', id],
  makeQuote: ([{ jobId }]) => ['job', jobId],
  acceptQuote: ([id]) => ['job', id],
  withdrawQuote: ([id]) => ['job', id],
  writeToSender: ([{ jobId }]) => ['job', jobId],
  takeNewFile: ([{ jobId }]) => ['job', jobId],
  leaveNewFileOut: ([id]) => ['job', id],
  giveJob: ([id]) => ['job', id],
  takeOffDay: ([id]) => ['job', id],
  layShared: ([{ id }]) => ['job', id],
  takeJobBack: ([id]) => ['job', id],
  takeJobFile: ([, { id }]) => ['job', id],
  addRun: ([{ jobId }]) => ['job', jobId],
  putBackSheet: ([runId]) => ['run', runId],
  keepOffcut: ([runId]) => ['run', runId],
  addKey: (_, key) => key && ['colour key', key.id],
  changeKey: ([id]) => ['colour key', id],
  deleteKey: ([id]) => ['colour key', id],
  addMachine: (_, machine) => machine && ['machine', machine.id],
  changeMachine: ([id]) => ['machine', id],
  keepTimingCard: ([{ machineId }]) => ['machine', machineId],
  addFamily: (_, family) => family && ['family', family.id],
  deleteFamily: ([id]) => ['family', id],
  keepFont: ([{ id }]) => ['font', id],
  deleteFont: ([id]) => ['font', id],
  addMaterial: (_, id) => (id === undefined ? null : ['material', id]),
  changeMaterial: ([, id]) => ['material', id],
  addRecipe: ([, id]) => ['material', id],
  changeRecipe: (_, id) => (id === undefined ? null : ['material', id]),
  keepKerf: ([id]) => ['material', id],
  keepFit: ([id]) => ['material', id],
  undoBookChange: (_, id) => (id === undefined ? null : ['material', id]),
  takeBookIn: () => null,
  settle: () => null,
  emptyShop: () => null,
  startSession: ([personId]) => ['person', personId],
  endSessionsOf: ([personId]) => ['person', personId],
  invite: () => null,
  changePerson: ([id]) => ['person', id],
  changePassword: ([id]) => ['person', id],
};

/** Does a write of somebody who is signed in, and notes in the record who did it, where the record tells of such writes. */
export async function noted(
  writing: Writing,
  what: string,
  args: readonly unknown[],
  work: (writing: Writing, ...args: unknown[]) => Promise<unknown>,
): Promise<unknown> {
  const subjectOf = (subjects as Record<string, (args: unknown, done: unknown) => Subject | null | undefined>)[what];
  if (!subjectOf) return work(writing, ...args);
  // What is deleted has its name before, what is made has it afterwards.
  const before = await nameOf(writing, subjectOf(args, undefined));
  const done = await work(writing, ...args);
  const subject = subjectOf(args, done);
  const name = (await nameOf(writing, subject)) ?? before;
  await writing.insert(DeedEntity, { at: new Date(), what, subjectId: subject?.[1] ?? null, subject: name });
  return done;
}

async function nameOf(writing: Writing, subject: Subject | null | undefined): Promise<string | null> {
  if (!subject) return null;
  const [kind, id] = subject;
  const [row] = (await writing.query(names[kind], [id])) as { name: string | null }[];
  return row?.name ?? null;
}
