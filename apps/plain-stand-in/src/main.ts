import { openSync } from 'node:fs';
import { createServer } from 'node:net';
import { createInterface } from 'node:readline';
import { ReadStream, WriteStream } from 'node:tty';
import { parseArgs } from 'node:util';
import { Controller } from './controller.ts';

const { values } = parseArgs({
  options: {
    /** A terminal that it is at, such as one end of a pair of pseudo-terminals; else it listens at a port. */
    device: { type: 'string' },
    port: { type: 'string', default: '0' },
    width: { type: 'string', default: '400' },
    height: { type: 'string', default: '400' },
    'top-speed': { type: 'string', default: '100' },
    'travel-speed': { type: 'string', default: '120' },
    acceleration: { type: 'string', default: '1000' },
    'acceleration-y': { type: 'string', default: '1000' },
    'corner-deviation': { type: 'string', default: '0.01' },
    'look-ahead': { type: 'string', default: '16' },
    /** In mm/s³; 0 where acceleration is there at once. */
    jerk: { type: 'string', default: '0' },
    /** Takes arcs, and makes them within so many mm; none where it is 0. */
    arcs: { type: 'string', default: '0' },
    /** How long each character is on its way, in microseconds. */
    'character-us': { type: 'string', default: '0' },
    'line-ms': { type: 'string', default: '1' },
    buffer: { type: 'string', default: '127' },
    'power-scale': { type: 'string', default: '1000' },
    'tells-no-room': { type: 'boolean', default: false },
    locked: { type: 'boolean', default: false },
    factor: { type: 'string', default: '1' },
  },
});

function number(name: Exclude<keyof typeof values, 'device' | 'tells-no-room' | 'locked'>): number {
  const value = Number(values[name]);
  if (Number.isFinite(value) && value >= 0) return value;
  process.stderr.write(`plain stand-in: --${name} must be a number, not “${values[name]}”.\n`);
  process.exit(2);
}

/** Where its answers go; nowhere while nobody is there. */
let send: (bytes: Uint8Array) => void = () => {};
/** Set while the line is set up wrongly, or disturbed: what comes and what goes is noise. */
let isNoisy = false;

const controller = new Controller(
  {
    width: number('width'),
    height: number('height'),
    topSpeed: number('top-speed'),
    travelSpeed: number('travel-speed'),
    accelerations: [number('acceleration'), number('acceleration-y')],
    cornerDeviation: number('corner-deviation'),
    lookAhead: number('look-ahead'),
    jerk: number('jerk'),
    arcsWithin: number('arcs'),
    characterS: number('character-us') / 1e6,
    lineS: number('line-ms') / 1000,
    buffer: number('buffer'),
    powerScale: number('power-scale'),
    tellsRoom: !values['tells-no-room'],
    startsLocked: values.locked,
  },
  (line) => send(throughNoise(Buffer.from(`${line}\r\n`))),
);

function throughNoise(bytes: Uint8Array): Uint8Array {
  return isNoisy ? bytes.map((byte) => (byte * 7) ^ 0x9a) : bytes;
}

function receive(bytes: Uint8Array): void {
  // What comes now was not there before: time that has passed since the last tick is none of its.
  passTime();
  controller.take(throughNoise(bytes));
}

if (values.device) {
  const input = new ReadStream(openSync(values.device, 'r+'));
  input.setRawMode(true);
  const output = new WriteStream(openSync(values.device, 'r+'));
  input.on('data', receive);
  // The other end was pulled out. Who tests that looks at what the beam does meanwhile.
  for (const stream of [input, output]) stream.on('error', () => stream.destroy());
  send = (bytes) => !output.destroyed && output.write(bytes);
  tell(`at ${values.device}`);
} else {
  const server = createServer((socket) => {
    socket.setNoDelay(true);
    send = (bytes) => socket.write(bytes);
    socket.on('data', receive);
    socket.on('error', () => socket.destroy());
    socket.on('close', () => {
      send = () => {};
    });
  });
  server.listen(number('port'), '127.0.0.1', () => {
    const address = server.address();
    tell(`listening on 127.0.0.1:${typeof address === 'object' && address ? address.port : ''}`);
  });
}

/** What whoever started it can do at the machine itself. */
const atTheMachine: Readonly<Record<string, () => void>> = {
  alarm: () => controller.raiseAlarm(),
  hold: () => controller.take(Uint8Array.of(0x21)),
  noise: () => {
    isNoisy = true;
  },
  quiet: () => {
    isNoisy = false;
  },
  babble: () => send(Buffer.from([0xff, 0x00, 0x41, 0x0a])),
  restart: () => controller.switchOn(),
};
createInterface({ input: process.stdin }).on('line', (line) => {
  atTheMachine[line.trim()]?.();
  tell(`did ${line.trim()}`);
});
process.stdin.once('end', () => process.exit(0));

const tickMs = 5;
/** A tick is no longer than this: for a process that was stopped, no time has passed. */
const longestTickMs = 10 * tickMs;
const factor = number('factor');
let last = performance.now();
let wasOn = false;
/** Lets pass what has passed on the wall since the last time. */
function passTime(): void {
  const now = performance.now();
  controller.advance((Math.min(now - last, longestTickMs) / 1000) * factor);
  last = now;
}
setInterval(() => {
  passTime();
  const isOn = controller.beam > 0;
  if (isOn !== wasOn) tell(isOn ? 'the beam is on' : 'the beam is off');
  wasOn = isOn;
}, tickMs);

function tell(what: string): void {
  process.stdout.write(`plain stand-in: ${what}\n`);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
