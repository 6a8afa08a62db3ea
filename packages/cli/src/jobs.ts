import type { JobCard } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { Server, type ServerOptions } from './server.ts';

export interface JobsOptions extends ServerOptions {
  json?: boolean;
}

/**
 * Lists the jobs on a server's Desk, the last changed first.
 * @returns the exit status
 * @throws Unusable when the server does not answer
 */
export async function jobs(options: JobsOptions): Promise<number> {
  const server = new Server(options);
  const [cards, machines] = await Promise.all([
    server.ask<JobCard[]>('GET', '/api/jobs'),
    server.ask<Machine[]>('GET', '/api/machines'),
  ]);
  if (options.json) {
    process.stdout.write(`${JSON.stringify(cards)}\n`);
    return 0;
  }
  if (cards.length === 0) process.stdout.write(`There are no jobs on the Desk of ${server.address}.\n`);
  for (const { id, title, version, machineId, itemCount, lastRun } of cards) {
    const machine = machines.find((entry) => entry.id === machineId)?.name ?? machineId;
    const burnt = lastRun ? `last run ${lastRun.status}` : 'not burnt yet';
    process.stdout.write(`${id}  ${title}: ${itemCount} items on ${machine}, version ${version}, ${burnt}\n`);
  }
  return 0;
}
