import type { MessagePort } from 'node:worker_threads';
import { errorOf, type Refusal, refusalOf } from '../common/refusals.ts';
import * as allTasks from './tasks.ts';

const tasks = { ...allTasks };

/** What became of a task; what went wrong inside is thrown. */
export type TaskAnswer = { readonly done: unknown } | { readonly refused: Refusal };

/** What a task says to the server while it is at work: that its turn has come, or which picture it needs. */
export type FromTask = { readonly kind: 'begun' } | { readonly kind: 'picture'; readonly id: string };

/** A picture that a task asked for, or why it cannot have it. */
export type PictureAnswer = { readonly id: string } & (
  | { readonly bytes: Uint8Array }
  | { readonly refused: Refusal | null }
);

/** Asks the server for pictures, which alone has the database. */
function picturesOver(line: MessagePort): allTasks.ReadPicture {
  return (id) =>
    new Promise((resolve, reject) => {
      const take = (answer: PictureAnswer) => {
        if (answer.id !== id) return;
        line.off('message', take);
        if ('bytes' in answer) resolve(answer.bytes);
        else reject(answer.refused ? errorOf(answer.refused) : new Error(`The picture ${id} cannot be read`));
      };
      line.on('message', take);
      line.postMessage({ kind: 'picture', id } satisfies FromTask);
    });
}

/** Does one task by name, with a line to the server. */
export default async function work({
  name,
  task,
  line,
}: {
  name: keyof typeof tasks;
  task: never;
  line: MessagePort;
}): Promise<TaskAnswer> {
  line.postMessage({ kind: 'begun' } satisfies FromTask);
  try {
    return { done: await tasks[name](task, picturesOver(line)) };
  } catch (error) {
    const refused = refusalOf(error);
    if (!refused) throw error;
    return { refused };
  }
}
