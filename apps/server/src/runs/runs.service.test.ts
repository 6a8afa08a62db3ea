import { describe, expect, test } from '@jest/globals';
import { type JobDocument, newJob, type Run } from '@lambent/core/document';
import { addRun, changeRun } from '@lambent/core/edits';
import { MachineRefusal } from '@lambent/machines';
import { packJob } from '../jobs/pack.ts';
import type { ReadPicture } from '../work/tasks.ts';
import { RunSender } from './run-sender.ts';
import { RunsService } from './runs.service.ts';

const signal = new AbortController().signal;
const program = { hash: 'hash', lines: 12, plannedS: 3.5, sheetIds: [], basis: { title: 'Tags' } };
const away = new MachineRefusal('machine-away', 'The machine does not answer.');
const busy = new MachineRefusal('machine-busy', 'The machine is not free: it is running.');

interface Options {
  document?: JobDocument;
  findings?: unknown[];
  /** What the machine answers each time that it is asked whether it is free. */
  busy?: (MachineRefusal | null)[];
  on?: string;
  status?: { state: string; reason: string | null };
  /** When its runs were burnt last; of one run alone where it is named. */
  burnt?: Date;
  burntRun?: string;
  camera?: boolean;
  /** The machine is told to stop while the job is made ready for it. */
  stopped?: boolean;
}

/** The service on one machine, with a planner that plans nothing; what it does is noted. */
function service(options: Options = {}) {
  const did: unknown[][] = [];
  const document = options.document ?? newJob('wren', 'house');
  const { settings, drawing } = packJob(document);
  const job = { settings, drawing: drawing.json };
  const answers = [...(options.busy ?? [])];
  let laid = 0;
  const stop = new AbortController();
  const driver = {
    status: { x: 3, y: 4, state: 'idle', reason: null, ...options.status },
    busy: () => answers.shift() ?? null,
    camera: options.camera ? { lay: async () => void laid++ } : null,
  };
  const links = {
    get: () => driver,
    stopSignal: () => stop.signal,
    tellHand: (_: string, { makingReady }: { makingReady: string | null }) => {
      did.push(['making ready', makingReady]);
      if (options.stopped && makingReady) stop.abort();
    },
    knows: () => true,
    state: () => ({ ...driver.status }),
  };
  const hand = { end: async (machineId: string) => void did.push(['end by hand', machineId]) };
  const jobs = {
    headOf: async () => ({ title: 'Tags', version: 5 }),
    packed: async (...of: unknown[]) => {
      did.push(['packed', ...of]);
      return job;
    },
  };
  const machine = { id: 'wren', bedWidth: 600, bedHeight: 400, origin: 'top-left' };
  const shop = { everything: async () => ({ machines: [machine], materials: [] }) };
  const work = {
    planToFile: async (task: unknown, picture: ReadPicture, given: AbortSignal) => {
      did.push(['planning is awaited', !given.aborted]);
      did.push(['planToFile', task, await picture('photo')]);
      return options.findings ? { program: null, findings: options.findings } : { program, findings: [] };
    },
    report: async (task: unknown) => {
      did.push(['report', task]);
      return 'report';
    },
  };
  const follower = {
    titleOn: () => options.on,
    guard: () => {},
    follow: async (run: unknown) => void did.push(['follow', run]),
  };
  const lastBurnt = async (_: string, runId: string) =>
    options.burntRun === undefined || options.burntRun === runId ? (options.burnt ?? null) : null;
  const record = { answered: async (id: string) => ({ id }), lastBurnt, expectAlone: async () => {} };
  const writes = { do: async (...write: unknown[]) => void did.push(write) };
  const pictures = { get: async (id: string) => ({ mediaType: 'image/png', bytes: `bytes of ${id}` }) };
  const sender = new RunSender(record as never, follower as never, links as never, hand as never, writes as never);
  const made = new RunsService(record as never, sender, jobs as never, shop as never, work as never, pictures as never);
  return { service: made, did: (name: string) => did.filter(([what]) => what === name), laid: () => laid };
}
const twoRuns = (): JobDocument => {
  const first = newJob('wren', 'house');
  const second: Run = { ...first.runs[0], id: 'back', name: 'Back', stock: 'in place' };
  return addRun(first, second);
};

describe('a start', () => {
  test('plans the run that is asked for, puts it on record, and has it followed', async () => {
    const { service: runs, did } = service();
    const { id } = await runs.start('j', { version: 2 }, signal);
    expect(did('packed')).toEqual([['packed', 'j', 2]]);
    const [[, task, picture]] = did('planToFile');
    expect(picture).toBe('bytes of photo');
    expect(task).toMatchObject({ runId: id, title: 'Tags', choice: { runId: 'run-1', head: { x: 3, y: 4 } } });
    const [[, written]] = did('addRun');
    expect(written).toMatchObject({
      id,
      jobId: 'j',
      version: 2,
      jobRunId: 'run-1',
      machineId: 'wren',
      status: 'running',
      programHash: 'hash',
      lines: 12,
      plannedS: 3.5,
      doneLine: 0,
      uses: { stock: 'fresh', sheets: [] },
      by: null,
      basis: { title: 'Tags' },
      afterRunId: null,
      fromLine: null,
    });
    expect(did('follow')).toHaveLength(1);
  });

  test('of a run that the job does not have is refused, and by its name, too', async () => {
    const { service: runs } = service({ document: twoRuns() });
    await expect(runs.start('j', { version: 1, runId: 'none' }, signal)).rejects.toMatchObject({ status: 404 });
    await expect(runs.start('j', { version: 1, runId: 'Back' }, signal)).rejects.toMatchObject({ status: 404 });
  });

  test('that the checks block is refused with what they found, and leaves the machine free', async () => {
    const { service: runs, did } = service({ findings: [{ code: 'off-bed' }] });
    for (let i = 0; i < 2; i++) {
      const start = runs.start('j', { version: 1 }, signal);
      await expect(start).rejects.toMatchObject({
        status: 422,
        code: 'blocked',
        details: { findings: [{ code: 'off-bed' }] },
      });
    }
    expect(did('addRun')).toEqual([]);
  });

  test('on a machine that is away, or became busy while it was planned, is refused as the machine says', async () => {
    await expect(service({ busy: [away] }).service.start('j', { version: 1 }, signal)).rejects.toBe(away);
    await expect(service({ busy: [away], on: 'Rings' }).service.start('j', { version: 1 }, signal)).rejects.toBe(away);
    await expect(service({ busy: [busy] }).service.start('j', { version: 1 }, signal)).rejects.toBe(busy);
    const late = service({ busy: [null as never, busy] });
    await expect(late.service.start('j', { version: 1 }, signal)).rejects.toBe(busy);
    expect(late.did('addRun')).toEqual([]);
  });

  test('beside another is refused with the name of what is there, and what that is doing', async () => {
    const { service: runs } = service();
    const first = runs.start('j', { version: 1 }, signal);
    const second = runs.start('j', { version: 1 }, signal);
    await expect(second).rejects.toMatchObject({
      code: 'machine-busy',
      message: 'The machine is not free: it has “Tags” (being made ready).',
    });
    await first;
    for (const [status, doing] of [
      [{ state: 'held', reason: 'held by hand' }, 'held, held by hand'],
      [{ state: 'running', reason: null }, 'running'],
    ] as const) {
      const { service: there } = service({ busy: [busy], on: 'Rings', status });
      await expect(there.start('j', { version: 1 }, signal)).rejects.toMatchObject({
        status: 409,
        message: `The machine is not free: it has “Rings” (${doing}).`,
      });
    }
  });

  test('that is stopped while it is made ready is refused as that, and not put on record', async () => {
    const { service: runs, did } = service({ stopped: true });
    await expect(runs.start('j', { version: 1 }, signal)).rejects.toMatchObject({
      status: 409,
      code: 'stopped',
      message: '“Tags” was stopped before it was sent: nothing of it burns.',
    });
    expect(did('planning is awaited')).toEqual([['planning is awaited', false]]);
    expect(did('addRun')).toEqual([]);
    expect(did('making ready').map(([, title]) => title)).toEqual(['Tags', null]);
  });

  test('of a run of several that is burnt is refused with when, unless it is meant', async () => {
    const burnt = new Date('2026-03-01T09:30:12Z');
    const start = { version: 1, runId: 'back' };
    const { service: runs, did } = service({ document: twoRuns(), burnt });
    await expect(runs.start('j', start, signal)).rejects.toMatchObject({
      code: 'burnt-already',
      message: expect.stringMatching(/^Back is on record as burnt \(2026-03-01 09:30 UTC\)\./),
    });
    await runs.start('j', { ...start, again: true }, signal);
    await service({ burnt }).service.start('j', { version: 1 }, signal);
    expect(did('addRun')).toHaveLength(1);
  });
});

describe('a run on stock that an earlier one leaves in place', () => {
  const start = { version: 1, runId: 'back' };

  test('is refused until that one was burnt, unless it is said to lie there', async () => {
    const { service: runs, did } = service({ document: twoRuns() });
    await expect(runs.start('j', start, signal)).rejects.toMatchObject({
      status: 409,
      code: 'not-burnt-before',
      message: expect.stringMatching(/^Back takes the stock as Run 1 leaves it, and Run 1 was not burnt yet/),
    });
    expect(did('addRun')).toEqual([]);
    await runs.start('j', { ...start, early: true }, signal);
    expect(did('addRun')).toHaveLength(1);
  });

  test('is sent when that one was burnt; one on fresh stock needs none before it', async () => {
    const burnt = new Date('2026-03-01T09:30:12Z');
    const { service: runs, did } = service({ document: twoRuns(), burnt, burntRun: 'run-1' });
    await runs.start('j', start, signal);
    await service({ document: changeRun(twoRuns(), 'back', { stock: 'fresh' }) }).service.start('j', start, signal);
    expect(did('addRun')).toHaveLength(1);
  });

  test('ends what the head does by hand before it asks whether the machine is free', async () => {
    const { service: runs, did } = service();
    await runs.start('j', { version: 1 }, signal);
    expect(did('end by hand')).toEqual([['end by hand', 'wren']]);
  });
});

describe('what lies on the bed', () => {
  test('is told to a machine with a camera with each fresh run, and once for those in place', async () => {
    const { service: runs, laid } = service({ document: twoRuns(), camera: true });
    const start = async (jobId: string, runId: string) => {
      await runs.start(jobId, { version: 1, runId, early: true }, signal);
      return laid();
    };
    expect(await start('j', 'run-1')).toBe(1);
    expect(await start('j', 'back')).toBe(1);
    expect(await start('j', 'run-1')).toBe(2);
    expect(await start('other', 'back')).toBe(3);
    expect(await start('other', 'back')).toBe(3);
    expect(await start('j', 'back')).toBe(4);
  });
});

describe('a plan', () => {
  test('is of the last version and the first run where none is named; a run is found by its name, too', async () => {
    const { service: runs, did } = service({ document: changeRun(twoRuns(), 'back', { name: 'Rear' }) });
    expect(await runs.plan('j', {}, signal)).toBe('report');
    await runs.plan('j', { version: 3, run: 'Rear' }, signal);
    expect(did('packed')).toEqual([
      ['packed', 'j', 5],
      ['packed', 'j', 3],
    ]);
    expect(did('report').map(([, task]) => (task as { choice: unknown }).choice)).toEqual([
      { runId: 'run-1', head: { x: 3, y: 4 } },
      { runId: 'back', head: { x: 3, y: 4 } },
    ]);
    await expect(runs.plan('j', { run: 'none' }, signal)).rejects.toMatchObject({ status: 404 });
  });
});
