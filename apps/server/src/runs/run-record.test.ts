import { describe, expect, test } from '@jest/globals';
import { EventHub } from '../events/event-hub.ts';
import type { RunEntity } from './run.entities.ts';
import { RunRecord } from './run-record.ts';

const row = (more: Partial<RunEntity> = {}) =>
  ({
    id: 'r1',
    jobId: 'j',
    status: 'running',
    startedAt: new Date('2026-03-01T09:30:00Z'),
    endedAt: null,
    taken: [],
    job: { title: 'Tags' },
    ...more,
  }) as RunEntity;
const over = new Date('2026-03-01T09:40:00Z');

/** A record of these runs, of which some have pictures. */
function recordOf(rows: RunEntity[], pictured: string[] = []) {
  const asked: unknown[] = [];
  const runs = {
    createQueryBuilder: () => {
      const builder = {
        innerJoinAndSelect: () => builder,
        orderBy: () => builder,
        take: () => builder,
        getMany: async () => rows,
      };
      return builder;
    },
    findOne: async (options: { where: { id?: string } }) => {
      asked.push(options);
      return rows.find(({ id }) => options.where.id === undefined || id === options.where.id) ?? null;
    },
    findOneBy: async ({ id }: { id: string }) => rows.find((one) => one.id === id) ?? null,
  };
  const pictures = {
    find: async () => pictured.map((runId) => ({ runId })),
    existsBy: async ({ runId }: { runId: string }) => pictured.includes(runId),
    findOneBy: async () => null,
  };
  const hub = new EventHub();
  const told: unknown[] = [];
  hub.heard().subscribe((event) => told.push(event));
  return { record: new RunRecord(runs as never, pictures as never, hub, {} as never), hub, told, rows, asked };
}

describe('a run of the record', () => {
  test('is answered with its job’s title, and whether there is a picture of it', async () => {
    const { record } = recordOf([row(), row({ id: 'r2' })], ['r2']);
    const listed = await record.list({});
    expect(listed.map(({ id, jobTitle, hasPicture }) => [id, jobTitle, hasPicture])).toEqual([
      ['r1', 'Tags', false],
      ['r2', 'Tags', true],
    ]);
    expect(await record.get('r2', 0)).toMatchObject({ id: 'r2', hasPicture: true, endedAt: null });
    await expect(record.get('r3', 0)).rejects.toMatchObject({ status: 404 });
    await expect(record.picture('r1')).rejects.toMatchObject({ status: 404 });
    await expect(record.programPath('r3')).rejects.toMatchObject({ status: 404 });
  });

  test('that is waited for is answered when it has ended, and no other', async () => {
    const { record, hub, rows } = recordOf([row(), row({ id: 'r2', endedAt: over })]);
    // What has ended is not waited for.
    expect((await record.get('r2', 3600)).endedAt).toBe(over.toISOString());
    let answered = false;
    const waiting = record.get('r1', 3600).finally(() => {
      answered = true;
    });
    const say = async (run: Partial<RunEntity>) => {
      const { endedAt = null, id = 'r1' } = run;
      hub.say({ type: 'run', run: { id, endedAt: endedAt?.toISOString() ?? null } as never });
      for (let i = 0; i < 3; i++) await new Promise((resolve) => setImmediate(resolve));
      return answered;
    };
    expect(await say({ id: 'r2', endedAt: over })).toBe(false);
    expect(await say({})).toBe(false);
    rows[0] = row({ status: 'done', endedAt: over });
    expect(await say({ endedAt: over })).toBe(true);
    expect(await waiting).toMatchObject({ status: 'done', endedAt: over.toISOString() });
  });

  test('that changed is told to all who listen', async () => {
    const { record, told } = recordOf([row()]);
    expect(await record.answered('r1')).toMatchObject({ id: 'r1' });
    expect(told).toMatchObject([{ type: 'run', run: { id: 'r1', jobTitle: 'Tags' } }]);
  });

  test('is over once it has ended; one that is not on record is not', async () => {
    const { record } = recordOf([row(), row({ id: 'r2', endedAt: over })]);
    expect([await record.isOver('r1'), await record.isOver('r2'), await record.isOver('r3')]).toEqual([
      false,
      true,
      false,
    ]);
  });

  test('was burnt last when the last done one began; never, where there is none', async () => {
    const { record, asked } = recordOf([row({ status: 'done' })]);
    expect(await record.lastBurnt('j', 'run-1')).toEqual(row().startedAt);
    expect(asked).toMatchObject([
      { where: { jobId: 'j', jobRunId: 'run-1', status: 'done' }, order: { sequence: 'DESC' } },
    ]);
    expect(await recordOf([]).record.lastBurnt('j', 'run-1')).toBeNull();
  });
});
