import type { JobAnswer, RunAnswer, VersionAnswer } from '@lambent/contracts';
import { jobFromJson, jobMediaType, jobToJson } from '@lambent/core/document';
import { type Shop, shopFromJson } from '@lambent/core/recipes';
import { formatDuration } from '@lambent/core/units';
import { nameOf, noteLine } from './files.ts';
import { chooseKey, defaultsInWords, type OpeningOptions, openFile, runNamed } from './opening.ts';
import { Server, type ServerOptions, ServerRefusal } from './server.ts';

export interface SendOptions extends OpeningOptions, ServerOptions {
  title?: string;
  run?: string;
  again?: boolean;
  early?: boolean;
  wait?: boolean;
  json?: boolean;
}

/** What is sent: a stored job in a version, and what there is to say of it. */
interface Sent {
  readonly id: string;
  readonly title: string;
  readonly version: number;
  readonly runId: string;
  readonly remarks: readonly string[];
}

/** As the server takes it. */
const longestTitle = 120;
/** The server answers when a run has ended, or after so many seconds. */
const longestWaitS = 60;

/**
 * Burns a drawing or a stored job on the machine of a server: the drawing is put on the Desk first.
 * @param what a drawing, a stored job as JSON, or the id of a job on the Desk
 * @returns the exit status: 1 when a finding blocks, or a run that was waited for did not end well
 * @throws Unusable when the file, the words or the server cannot be used
 */
export async function send(what: string, options: SendOptions): Promise<number> {
  const server = new Server(options);
  const say = (line: string) => {
    if (!options.json) process.stdout.write(`${line}\n`);
  };
  const isId = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(what);
  const { id, title, version, runId, remarks } = isId
    ? await onDesk(server, what, options)
    : await putOnDesk(server, what, options);
  for (const remark of remarks) say(`  ${remark}`);
  let run: RunAnswer;
  try {
    run = await server.ask<RunAnswer>('POST', `/api/jobs/${id}/runs`, {
      version,
      runId,
      ...(options.again ? { again: true } : {}),
      ...(options.early ? { early: true } : {}),
    });
  } catch (error) {
    if (!(error instanceof ServerRefusal) || error.code !== 'blocked') throw error;
    if (options.json) process.stdout.write(`${JSON.stringify({ jobId: id, version, findings: error.findings })}\n`);
    say(`${title}: not sent. It is on the Desk as ${id}.`);
    for (const { level, message } of error.findings) say(`  ${level}: ${message}`);
    return 1;
  }
  say(`${title}: sent to ${run.machineId} as run ${run.id}, planned for ${formatDuration(run.plannedS)}`);
  const last = options.wait ? await ended(server, run) : run;
  if (options.json) process.stdout.write(`${JSON.stringify(last)}\n`);
  if (!options.wait) return 0;
  say(`  ${last.status} after ${formatDuration(last.machineS)}${last.reason ? `: ${last.reason}` : ''}`);
  return last.status === 'done' ? 0 : 1;
}

async function onDesk(server: Server, id: string, options: SendOptions): Promise<Sent> {
  const { title, version, document } = await server.ask<JobAnswer>('GET', `/api/jobs/${id}`);
  return { id, title, version, runId: runNamed(jobFromJson(document).runs, options.run).id, remarks: [] };
}

/** Lays a drawing, or a stored job from a file, on the Desk as a new job. */
async function putOnDesk(server: Server, file: string, options: SendOptions): Promise<Sent> {
  const shop = await shopOf(server);
  const { job, source, pictures } = await openFile(file, options, shop);
  const { id: runId } = runNamed(job.runs, options.run);
  const key = await chooseKey(shop, options.key ?? job.keyId);
  const document = { ...job, keyId: key.id };
  const title = (options.title ?? nameOf(file)).slice(0, longestTitle);
  for (const { id, bytes } of pictures.values()) {
    await server.ask('PUT', `/api/pictures/${id}`, bytes, 'application/octet-stream');
  }
  const made = await server.ask<JobAnswer>('POST', '/api/jobs', { title, machineId: job.machineId });
  const words = new URLSearchParams({ base: String(made.version), edit: 'bring in from the command line' });
  const body = JSON.stringify(jobToJson(document));
  const saved = await server.ask<VersionAnswer>('PUT', `/api/jobs/${made.id}?${words}`, body, jobMediaType);
  const defaults = defaultsInWords(options, document, source);
  const remarks = [
    ...source.warnings.map((warning) => `reading: ${noteLine(warning)}`),
    ...(defaults ? [defaults] : []),
  ];
  return { id: made.id, title, version: saved.number, runId, remarks };
}

async function shopOf(server: Server): Promise<Shop> {
  const [machines, keys, materials] = await Promise.all(
    ['machines', 'colour-keys', 'materials'].map((path) => server.ask<unknown[]>('GET', `/api/${path}`)),
  );
  return shopFromJson({ name: server.address, machines, keys, materials });
}

/** Waits until a run is over. */
async function ended(server: Server, run: RunAnswer): Promise<RunAnswer> {
  let last = run;
  while (last.endedAt === null) last = await server.ask<RunAnswer>('GET', `/api/runs/${run.id}?wait=${longestWaitS}`);
  return last;
}
