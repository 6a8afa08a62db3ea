import type { Box } from '../geometry/paths/box.ts';
import type { Operation } from '../operations/operations.ts';
import { type OptionalSchema, optional, orNull, type ValueOf, withUsual } from '../schema/schema.ts';
import { list, record, table, variants } from '../schema/structures.ts';
import { fromTo, largestNumber, named, number, oneOf, text, whole, wholeNumber, yes } from '../schema/values.ts';
import { type MachineFigureName, machineFigures } from './figures.ts';

/** What makes a machine's beam. */
export const machineKinds = ['co2', 'diode', 'fibre'] as const;
export type MachineKind = (typeof machineKinds)[number];

/** Where a machine's X0 Y0 lies on its bed. From a top-left origin Y runs down, from the others up. */
export const origins = ['top-left', 'bottom-left', 'centre'] as const;
export type Origin = (typeof origins)[number];

const aboveZero = fromTo(null, largestNumber);
const figure = (name: MachineFigureName) => number(machineFigures[name].least, machineFigures[name].most);
const place = record({ x: number(), y: number() });

/** A lens that can be put into a machine. The first one is in it where a job says nothing. */
const lens = record({ id: text, name: text });
export type Lens = ValueOf<typeof lens>;

/**
 * What machines are spoken to in: the language of the stand-ins, or the plain one that most small controllers share, lines
 * of RS-274 that are answered one by one.
 */
export const machineLanguages = ['lambent', 'plain'] as const;
export type MachineLanguage = (typeof machineLanguages)[number];

/** How many characters most small controllers take before they have answered. */
export const usualBuffer = 127;
const buffer = withUsual(wholeNumber(64, 65_535), usualBuffer);

/** How Lambent reaches a machine: a stand-in that it makes itself, one that listens on the network, or a serial port. */
const connection = variants('kind', {
  /** Its time passes so much faster than a real machine's. */
  'stand-in': { factor: number(1, 100) },
  network: {
    host: named(255),
    port: wholeNumber(1, 65_535),
    language: withUsual(oneOf(machineLanguages), 'lambent'),
    buffer,
  },
  /** Plain: `path` is the port's file or name. */
  serial: { path: named(255), baud: wholeNumber(1200, 4_000_000), buffer },
});
export type Connection = ValueOf<typeof connection>;

/** A machine as the planner needs it; lengths in mm, speeds in mm/s, accelerations in mm/s². */
export const machineSchema = record({
  id: text,
  name: named(60),
  kind: oneOf(machineKinds),
  /** The power of its beam as its maker says, and as it was measured, in watts. */
  ratedW: figure('ratedW'),
  measuredW: optional(orNull(figure('measuredW'))),
  bedWidth: figure('bedWidth'),
  bedHeight: figure('bedHeight'),
  origin: oneOf(origins),
  /** How near artwork may come to the edge of the bed. */
  margin: figure('margin'),
  /** Where the head rests between runs, in the machine's own frame; at its zero where nothing is said. */
  rest: optional(place),
  /** How far above the stock its focus rests between runs, in mm, such as with the bed lowered; on the stock where nothing is said. */
  restFocus: optional(number(-1000, 1000)),
  /** Where its red pointer shines, seen from the beam, in the machine's own frame; missing where it has none. */
  pointer: optional(place),
  /** The top speed while lit. */
  topSpeed: figure('topSpeed'),
  /** The speed of unlit moves. */
  travelSpeed: figure('travelSpeed'),
  acceleration: figure('acceleration'),
  /** Where Y has an acceleration of its own, each axis is held to its own; else the head as a whole is. */
  accelerationY: optional(figure('accelerationY')),
  /** How fast its acceleration rises and falls, in mm/s³; it sets in at once where nothing is said. */
  jerk: optional(figure('jerk')),
  /** How far corners may be cut, if only in thought, to set the speed through them. */
  cornerDeviation: figure('cornerDeviation'),
  /** It makes arcs (G2, G3) of chords that are so many mm off them at most; missing where it takes none. */
  arcsWithin: optional(figure('arcsWithin')),
  /** How many moves its controller knows ahead of the one that it makes; as many as it takes where nothing is said. */
  lookAhead: optional(whole(figure('lookAhead'))),
  /** How many ms its controller needs for each line before it knows it; none to speak of where nothing is said. */
  moveMs: optional(figure('moveMs')),
  /** How many ms a character is on its way to it; as the speed of its line says where nothing is said here. */
  characterMs: optional(figure('characterMs')),
  /** How long its runs take of what these figures say, in %, as its runs have shown; all of it where nothing is said. */
  timeShare: optional(figure('timeShare')),
  /** From when on its runs tell whether its times hold, as ISO 8601: since its figures were measured or corrected. */
  timesSince: optional(text),
  /** The S word that means full power. */
  powerScale: figure('powerScale'),
  minLineSpacing: figure('minLineSpacing'),
  /** The top speed of an operation, where it is below that of the machine. */
  topSpeeds: optional(table(figure('topSpeed'), (operation) => `top speed of ${operation}`)) as OptionalSchema<
    Readonly<Partial<Record<Operation, number>>>
  >,
  /** Below this share of its power the beam does not light, and above this it should not be driven, in %. */
  leastPower: optional(figure('leastPower')),
  mostPower: optional(figure('mostPower')),
  /** How deep and how high its focus goes, in mm above the stock, and how fast; missing where it is set by hand. */
  focus: optional(record({ lowest: number(-1000, 1000), highest: number(-1000, 1000), speed: fromTo(null, 1000) })),
  /** What blows at its beam: levels, and a pressure up to so many bar; missing where nothing does that it could switch. */
  air: optional(record({ levels: list(oneOf(['low', 'high'])), mostBar: orNull(aboveZero) })),
  /** How wide the gaps are between what stock lies on, in mm: the cells of a honeycomb, the pitch of bars. */
  bedGapMm: optional(figure('bedGapMm')),
  lenses: optional(list(lens, { each: (index) => `lens ${index + 1}`, isPlaced: false, most: 20 })),
  /** How far apart lines burn that are scanned there and back, in mm at mm/s, as measured along each axis; see `scanOffsetAt`. */
  scanOffsets: optional(
    list(record({ axis: oneOf(['x', 'y']), speed: fromTo(null, 20_000), mm: number(-20, 20) }), { most: 40 }),
  ),
  /**
   * How far its head truly goes of each mm that it is told along X and along Y, as a burnt square showed. It leans so much
   * along X for each mm along Y. Straight and true to scale where nothing is said. See `axes.ts`.
   */
  axes: optional(record({ x: number(0.8, 1.25), y: number(0.8, 1.25), lean: number(-0.2, 0.2) })),
  /** Lines of the shop's own that every program begins and ends with; see `ownLineFault`. */
  startLines: optional(list(text, { most: 20 })),
  endLines: optional(list(text, { most: 20 })),
  /** Null until its owner has said how it is reached. */
  connection: orNull(connection),
  /** Jobs that were made for it keep it; it is not offered any more, and not spoken to. */
  isPutAway: yes,
});
export type Machine = ValueOf<typeof machineSchema>;

/** Machines that are not put away. */
export function atWork(machines: readonly Machine[]): Machine[] {
  return machines.filter(({ isPutAway }) => !isPutAway);
}

/** Bits that a serial line takes for a character: one begins it, eight are its own, one ends it. */
const bitsOfCharacter = 10;

/** How many seconds a character takes to a machine, and how many characters may be under way to it. */
export function lineTo({ connection, characterMs }: Pick<Machine, 'connection' | 'characterMs'>): {
  characterS: number;
  buffer: number;
} {
  const isPlain = languageOf({ connection }) === 'plain';
  const byLine = connection?.kind === 'serial' ? bitsOfCharacter / connection.baud : 0;
  return {
    characterS: characterMs === undefined ? byLine : characterMs / 1000,
    buffer: isPlain && connection && 'buffer' in connection ? connection.buffer : Infinity,
  };
}

/** What a machine is spoken to in. */
export function languageOf({ connection }: Pick<Machine, 'connection'>): MachineLanguage {
  if (connection?.kind === 'serial') return 'plain';
  return connection?.kind === 'network' ? connection.language : 'lambent';
}

/**
 * How much a head can gain speed in a direction, in mm/s².
 *
 * @param ux the direction's part along X
 * @param uy the direction's part along Y, both together of length 1
 */
export function accelerationAlong(
  { acceleration, accelerationY }: Pick<Machine, 'acceleration' | 'accelerationY'>,
  ux: number,
  uy: number,
): number {
  if (accelerationY === undefined) return acceleration;
  return Math.min(acceleration / Math.abs(ux), accelerationY / Math.abs(uy));
}

/** How fast a machine goes, in mm/s, while it does an operation. */
export function topSpeedOf({ topSpeed, topSpeeds }: Machine, operation: Operation): number {
  return Math.min(topSpeed, topSpeeds?.[operation] ?? topSpeed);
}

/** The whole bed of a machine. */
export function bedBox(machine: Pick<Machine, 'bedWidth' | 'bedHeight'>): Box {
  return { minX: 0, minY: 0, maxX: machine.bedWidth, maxY: machine.bedHeight };
}

/** The power of a machine's beam in watts: as measured, else as rated. */
export function wattsOf({ measuredW, ratedW }: Pick<Machine, 'measuredW' | 'ratedW'>): number {
  return measuredW ?? ratedW;
}

/** A machine's beam in words, such as `CO₂ 60 W` or `diode 10 W`. */
export function beamOf({ kind, ratedW }: Pick<Machine, 'kind' | 'ratedW'>): string {
  return `${kind === 'co2' ? 'CO₂' : kind} ${ratedW} W`;
}
