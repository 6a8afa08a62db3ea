import { type AddressInfo, connect, type Socket } from 'node:net';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { build } from './fixtures/build.ts';
import { Control, serve } from './link.ts';
import { StandInMachine } from './machine.ts';

let machine: StandInMachine;
let link: ReturnType<typeof serve>;
let socket: Socket;
let heard = '';

beforeEach(async () => {
  machine = new StandInMachine(build);
  machine.advance(5);
  link = serve(machine);
  await new Promise<void>((resolve) => link.server.listen(0, '127.0.0.1', resolve));
  socket = connect((link.server.address() as AddressInfo).port, '127.0.0.1');
  heard = '';
  socket.on('data', (data) => {
    heard += data;
  });
});
afterEach(async () => {
  socket.destroy();
  await new Promise((resolve) => link.server.close(resolve));
});

async function answers(count: number): Promise<string[]> {
  for (let i = 0; i < 200 && heard.split('\n').length <= count; i++) await new Promise((go) => setTimeout(go, 5));
  return heard.trimEnd().split('\n');
}

test('each line is answered in order, whether it comes whole, in pieces or with others', async () => {
  socket.write('G21\nG0 X1');
  socket.write('0\nG7\r\nG1 X20\n');
  expect(await answers(4)).toEqual(['ok', 'ok', 'error:G7 is not known', 'error:G1 before any F']);
});

test('the status is told at once, between the bytes of a line', async () => {
  socket.write(Buffer.from([71, 50, Control.enquire, 49, 10]));
  const [status, answer] = await answers(2);
  expect(JSON.parse(status.replace('status ', ''))).toMatchObject({ state: 'idle', x: 0, lid: 'closed', buffer: 3000 });
  expect(answer).toBe('ok');
});

test('a stop takes with it every line before it, also those in the same breath, and none after it', async () => {
  socket.write(`G0 X10\nG0 X20\n${String.fromCharCode(Control.stop)}G0 Y5\n`);
  expect(await answers(3)).toEqual(['error:stopped', 'error:stopped', 'ok']);
  machine.advance(10);
  expect(machine.status()).toMatchObject({ x: 0, y: 5 });
});

test('lines wait while the buffer is full; words do not', async () => {
  socket.write(`${Array.from({ length: 3100 }, (_, i) => `G0 X${(i % 500) + 1}`).join('\n')}\nlid open\n`);
  const said = await answers(3001);
  expect(said.filter((one) => one === 'ok')).toHaveLength(3000);
  expect(said).toContain('word ok');
  machine.take('');
  machine.takeWord('lid close');
  machine.resume();
  machine.advance(5000);
  link.release();
  expect((await answers(3101)).filter((one) => one === 'ok')).toHaveLength(3100);
});

test('it is told of sheets, and shows what was burnt on them', async () => {
  const rings = [[0, 0, 300, 0, 300, 200, 0, 200]];
  socket.write(`sheets ${JSON.stringify([{ rings, kind: 'Cork', thickness: 3 }])}\nlook\n`);
  expect(await answers(2)).toEqual(['word ok', 'word null']);
  socket.write('M4 S500\nG0 X10 Y10\nG1 X40 F600\n');
  await answers(5);
  machine.advance(100);
  socket.write('look\n');
  const shown = JSON.parse((await answers(6))[5].replace('word ', ''));
  expect(shown).toMatchObject({ pitch: 0.2, height: 1 });
  expect(shown.width * shown.pitch).toBeCloseTo(30, 0);
  socket.write('sheets [3]\n');
  expect((await answers(7))[6]).toBe('word error:sheet 1 has no rings of three points or more, x and y of each');
});

test('a line without end ends the connection, not the machine', async () => {
  socket.on('error', () => {});
  socket.write('X'.repeat(70_000));
  await new Promise((resolve) => socket.once('close', resolve));
  expect(heard).toBe('error:the line has no end\n');
  expect(machine.status().state).toBe('idle');
});

test('a word with a number is answered with it; a number before what is no word is said', async () => {
  socket.write('#7 lid open\nlid close\n#8 explode\n');
  expect(await answers(3)).toEqual(['word #7 ok', 'word ok', 'word #8 error:“explode” is no word']);
});
