import { formatLength } from '../units/length.ts';
import { restingFocus, restingPlace, toMachine } from './frame.ts';
import { accelerationAlong, bedBox, languageOf, type Machine } from './machine.ts';
import { ownLineFault } from './own-lines.ts';

/** What makes no sense in the figures of a machine, or is hardly meant. */
export interface MachineDoubt {
  /** The figure that it is about. */
  readonly about: keyof Machine;
  /** Whether nothing can be planned by it; else it is only said. */
  readonly blocks: boolean;
  /** A sentence for whoever types it. */
  readonly message: string;
}

/** A beam that was measured at more than this share above what it is rated is hardly meant. */
const mostOverRated = 1.25;
/** Corners that are cut by more than this, in mm, can be seen. */
const seenCorner = 0.1;
/** About so long are the pieces of a small curve, in mm. */
const finePiece = 0.2;

/** Looks at the figures of a machine together: what contradicts, cannot be reached or is hardly meant. */
export function machineDoubts(machine: Machine): MachineDoubt[] {
  return [
    ...doubtsOfBed(machine),
    ...doubtsOfMotion(machine),
    ...doubtsOfBeam(machine),
    ...doubtsOfLine(machine),
    ...doubtsOfScans(machine),
    ...doubtsOfOwnLines(machine),
  ];
}

function* doubtsOfBed(machine: Machine): Generator<MachineDoubt> {
  const { bedWidth, bedHeight, margin } = machine;
  if (2 * margin >= Math.min(bedWidth, bedHeight))
    yield blocking('margin', `${mm(margin)} on every side leave nothing of the bed.`);
  const { minX, minY, maxX, maxY } = bedBox(machine);
  const { x, y } = restingPlace(machine);
  if (x < minX || x > maxX || y < minY || y > maxY) {
    const [a, b] = [toMachine(machine, minX, minY), toMachine(machine, maxX, maxY)];
    const range = (from: number, to: number) => `${mm(Math.min(from, to))} to ${mm(Math.max(from, to))}`;
    yield blocking('rest', `That is off the bed: its X goes from ${range(a.x, b.x)}, its Y from ${range(a.y, b.y)}.`);
  }
}

function* doubtsOfMotion(machine: Machine): Generator<MachineDoubt> {
  const { bedWidth, bedHeight, topSpeed, travelSpeed, topSpeeds = {}, cornerDeviation } = machine;
  // Half of the way for speeding up, half for braking: v² = a·s.
  const alongX = accelerationAlong(machine, 1, 0) * bedWidth;
  const alongY = accelerationAlong(machine, 0, 1) * bedHeight;
  const reached = Math.sqrt(Math.max(alongX, alongY));
  for (const [about, speed] of [
    ['topSpeed', topSpeed],
    ['travelSpeed', travelSpeed],
  ] as const) {
    if (speed > reached)
      yield said(
        about,
        `The bed is too short for that: the head reaches ${Math.floor(reached)} mm/s, then it must brake.`,
      );
  }
  if (travelSpeed < topSpeed) yield said('travelSpeed', 'Unlit moves would be slower than lit ones. Is that meant?');
  for (const [operation, speed] of Object.entries(topSpeeds)) {
    if (speed > topSpeed)
      yield said('topSpeeds', `It is never that fast when it should ${operation}: its top speed is ${topSpeed} mm/s.`);
  }
  yield* doubtsOfController(machine);
  if (cornerDeviation > seenCorner)
    yield said(
      'cornerDeviation',
      `Corners that are cut by ${mm(cornerDeviation)} can be seen. Usual are 0.01 to 0.05 mm.`,
    );
}

function* doubtsOfController({ lookAhead, moveMs, topSpeed, ...machine }: Machine): Generator<MachineDoubt> {
  if (lookAhead !== undefined) {
    // As fast as the head can brake from in the moves that are known: v² = 2·a·s.
    const held = Math.floor(Math.sqrt(2 * machine.acceleration * lookAhead * finePiece));
    if (held < topSpeed)
      yield said('lookAhead', `In curves of ${mm(finePiece)} pieces that holds the head to ${held} mm/s.`);
  }
  if (moveMs !== undefined && finePiece / (moveMs / 1000) < topSpeed)
    yield said(
      'moveMs',
      `In curves of ${mm(finePiece)} pieces that holds the head to ${Math.floor((1000 * finePiece) / moveMs)} mm/s.`,
    );
}

/** What cannot be said in the language that a machine is spoken to in. */
function* doubtsOfLine(machine: Machine): Generator<MachineDoubt> {
  if (languageOf(machine) === 'plain' && machine.air?.mostBar)
    yield blocking('air', 'The plain language has no word for a pressure. Say which levels it switches instead.');
}

function* doubtsOfScans({ scanOffsets = [] }: Machine): Generator<MachineDoubt> {
  const names = scanOffsets.map(({ axis, speed }) => `${axis.toUpperCase()} at ${speed} mm/s`);
  const twice = names.find((name, i) => names.indexOf(name) < i);
  if (twice) yield blocking('scanOffsets', `${twice} stands there twice. Keep the one that was measured last.`);
}

function* doubtsOfOwnLines(machine: Machine): Generator<MachineDoubt> {
  for (const about of ['startLines', 'endLines'] as const) {
    for (const line of machine[about] ?? []) {
      const fault = ownLineFault(line);
      if (fault) yield blocking(about, `“${line}” cannot be sent: ${fault}.`);
    }
  }
}

function* doubtsOfBeam(machine: Machine): Generator<MachineDoubt> {
  const { ratedW, measuredW, leastPower = 0, mostPower = 100, focus, lenses = [] } = machine;
  if (measuredW && measuredW > ratedW * mostOverRated)
    yield said('measuredW', `Measured far above its rated ${ratedW} W. Is that meant?`);
  if (leastPower >= mostPower)
    yield blocking(
      'leastPower',
      `It would light from ${leastPower} % on, and may be driven up to ${mostPower} % only.`,
    );
  if (focus && focus.lowest >= focus.highest)
    yield blocking(
      'focus',
      `Its lowest focus must lie below its highest; they are ${focus.lowest} and ${focus.highest} mm.`,
    );
  const rest = restingFocus(machine);
  if (focus && (rest < focus.lowest || rest > focus.highest))
    yield blocking(
      'restFocus',
      `Its focus goes from ${focus.lowest} to ${focus.highest} mm: it cannot rest at ${rest} mm.`,
    );
  const names = lenses.map(({ name }) => name.trim().toLowerCase());
  if (names.includes('')) yield blocking('lenses', 'Each lens needs a name, such as “50 mm”.');
  else if (new Set(names).size < names.length) yield blocking('lenses', 'Two lenses have one name. Tell them apart.');
}

function blocking(about: keyof Machine, message: string): MachineDoubt {
  return { about, blocks: true, message };
}

function said(about: keyof Machine, message: string): MachineDoubt {
  return { about, blocks: false, message };
}

function mm(length: number): string {
  return formatLength(length, 'mm');
}
