import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { MachineRefusal, type MachineWord, type Program, type ProgramEnd, StandInDriver } from '@lambent/machines';
import fc from 'fast-check';
import { Stack } from './stack.ts';

/*
 * The driver against the stand-in itself: whatever is told in whatever order, both sides agree afterwards.
 */

const stack = new Stack();
let driver: StandInDriver;
beforeAll(async () => {
  const port = await stack.startStandIn('wren', '--factor', '60');
  driver = new StandInDriver({ host: '127.0.0.1', port });
  driver.open();
});
afterAll(async () => {
  await driver.close(0);
  await stack.close();
});

async function until(suits: () => boolean): Promise<void> {
  while (!suits()) await new Promise((resolve) => setTimeout(resolve, 5));
}

let runs = 0;
const program = (): Program => {
  const lines = [
    'M4 S0',
    'G0 X10 Y10',
    ...Array.from({ length: 60 }, (_, i) => `G1 X${10 + (i % 30)} Y${20 + i} F3000 S100`),
  ];
  return {
    runId: `run-${runs++}`,
    lines: lines.length,
    async *open() {
      for (const text of lines) yield { text, seconds: 0.3 };
    },
  };
};

type Act = 'send' | 'stop' | 'hold' | 'resume' | 'pause' | MachineWord;
const acts: Act[] = [
  'send',
  'send',
  'send',
  'stop',
  'stop',
  'hold',
  'resume',
  'home',
  'clear',
  'lid open',
  'lid close',
  'pause',
];

test('start, stop, hold, clear, home and the lid in any order, at any moment, leave both sides agreeing', async () => {
  await until(() => driver.status.state === 'idle');
  await fc.assert(
    fc.asyncProperty(fc.array(fc.constantFrom(...acts), { minLength: 1, maxLength: 14 }), async (sequence) => {
      const answers: Promise<unknown>[] = [];
      const ends: Promise<ProgramEnd | null>[] = [];
      const refused = (error: unknown) => {
        if (error instanceof MachineRefusal) return null;
        throw error;
      };
      for (const act of sequence) {
        if (act === 'pause') await new Promise((resolve) => setImmediate(resolve));
        else if (act === 'send') ends.push(driver.send(program()).catch(refused));
        else if (act === 'stop') answers.push(driver.stop().catch(refused));
        else if (act === 'hold') driver.hold();
        else if (act === 'resume') driver.resume();
        else answers.push(driver.tell(act).catch(refused));
      }
      await Promise.all(answers);
      // What was sent is either at its end, or under way and can be stopped; nothing hangs.
      await driver.stop();
      await Promise.all(ends);
      await driver.tell('lid close');
      await driver.tell('clear');
      await until(() => driver.busy() === null);
      const { state, runId, power } = driver.status;
      expect({ state, runId, power }).toEqual({ state: 'idle', runId: null, power: 0 });
    }),
    { numRuns: 60 },
  );
  // And it still burns a program to its end.
  expect(await driver.send(program())).toMatchObject({ status: 'done', line: 62 });
  expect(driver.oddities).toBe(0);
});
