import type { MessagePort } from 'node:worker_threads';
import { type Refusal, refusalOf } from '../common/refusals.ts';
import * as allTasks from './tasks.ts';

const tasks = { ...allTasks };

/** What became of a task; what went wrong inside is thrown. */
export type TaskAnswer = { readonly done: unknown } | { readonly refused: Refusal };

/** Does one task by name. `begun` is told as soon as its turn has come. */
export default async function work({
  name,
  task,
  begun,
}: {
  name: keyof typeof tasks;
  task: never;
  begun: MessagePort;
}): Promise<TaskAnswer> {
  begun.postMessage(null);
  try {
    return { done: await tasks[name](task) };
  } catch (error) {
    const refused = refusalOf(error);
    if (!refused) throw error;
    return { refused };
  }
}
