import { parseArgs } from 'node:util';
import { serve } from './link.ts';
import { StandInMachine } from './machine.ts';
import type { Build } from './machine-status.ts';

const { values } = parseArgs({
  options: {
    name: { type: 'string', default: 'Stand-in' },
    host: { type: 'string', default: '127.0.0.1' },
    port: { type: 'string', default: '7451' },
    width: { type: 'string', default: '600' },
    height: { type: 'string', default: '400' },
    origin: { type: 'string', default: 'top-left' },
    'top-speed': { type: 'string', default: '500' },
    'travel-speed': { type: 'string', default: '600' },
    acceleration: { type: 'string', default: '4000' },
    /** Where Y has one of its own, each axis is held to its own. */
    'acceleration-y': { type: 'string', default: '' },
    /** In mm/s³; 0 where acceleration sets in at once. */
    jerk: { type: 'string', default: '0' },
    /** How far it truly goes of each mm that it is told, and how much along X for each mm along Y. */
    'true-x': { type: 'string', default: '1' },
    'true-y': { type: 'string', default: '1' },
    lean: { type: 'string', default: '0' },
    /** Takes arcs, and makes them within so many mm; none where nothing is said. */
    arcs: { type: 'string', default: '0' },
    'look-ahead': { type: 'string', default: '400' },
    'line-ms': { type: 'string', default: '0' },
    /** How late the beam comes on and goes off. */
    'lag-ms': { type: 'string', default: '0' },
    'corner-deviation': { type: 'string', default: '0.01' },
    'power-scale': { type: 'string', default: '1000' },
    'lowest-z': { type: 'string', default: '0' },
    'highest-z': { type: 'string', default: '0' },
    'focus-speed': { type: 'string', default: '10' },
    watts: { type: 'string', default: '60' },
    'taken-in': { type: 'string', default: '1' },
    factor: { type: 'string', default: '1' },
    'ends-with-input': { type: 'boolean', default: false },
  },
});

function number(name: Exclude<keyof typeof values, 'name' | 'host' | 'origin' | 'ends-with-input'>): number {
  const value = Number(values[name]);
  const mayBeBelow0 = name === 'lowest-z' || name === 'highest-z' || name === 'lean';
  if (!(value >= 0 || (mayBeBelow0 && Number.isFinite(value)))) {
    process.stderr.write(`stand-in: --${name} must be a number, not “${values[name]}”.\n`);
    process.exit(2);
  }
  return value;
}

const width = number('width');
const height = number('height');
const centred = values.origin === 'centre';
const build: Build = {
  name: values.name,
  minX: centred ? -width / 2 : 0,
  minY: centred ? -height / 2 : 0,
  maxX: centred ? width / 2 : width,
  maxY: centred ? height / 2 : height,
  topSpeed: number('top-speed'),
  travelSpeed: number('travel-speed'),
  acceleration: number('acceleration'),
  accelerationY: values['acceleration-y'] === '' ? null : number('acceleration-y'),
  ...(number('jerk') > 0 ? { jerk: number('jerk') } : {}),
  ...(number('arcs') > 0 ? { arcsWithin: number('arcs') } : {}),
  axes: { x: number('true-x'), y: number('true-y'), lean: number('lean') },
  lookAhead: number('look-ahead'),
  lineS: number('line-ms') / 1000,
  lagS: number('lag-ms') / 1000,
  cornerDeviation: number('corner-deviation'),
  powerScale: number('power-scale'),
  lowestZ: number('lowest-z'),
  highestZ: number('highest-z'),
  focusSpeed: number('focus-speed'),
  watts: number('watts'),
  takenIn: number('taken-in'),
};
/** How much faster than a real machine's time passes here. */
const factor = number('factor');

const machine = new StandInMachine(build);
const { server, release, linesComeIn } = serve(machine);

const tickMs = 10;
/** A tick is no longer than this: for a process that was stopped, no time has passed. */
const longestTickMs = 5 * tickMs;
let last = performance.now();
setInterval(() => {
  const now = performance.now();
  const seconds = Math.min(now - last, longestTickMs) / 1000;
  last = now;
  machine.listen(seconds);
  machine.advance(seconds * factor, linesComeIn());
  release();
}, tickMs);

server.on('error', (error: NodeJS.ErrnoException) => {
  const why = error.code === 'EADDRINUSE' ? `port ${values.port} is taken by another program` : error.message;
  process.stderr.write(`stand-in ${values.name}: ${why}.\n`);
  process.exit(1);
});
server.listen(Number(values.port), values.host, () => {
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : values.port;
  process.stdout.write(`stand-in ${values.name}: listening on ${values.host}:${port}\n`);
});
// Whoever started it is gone.
if (values['ends-with-input']) process.stdin.resume().once('close', () => process.exit(0));
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
