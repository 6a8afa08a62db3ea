import type { Box } from '../geometry/paths/box.ts';
import type { Operation } from '../operations/operations.ts';
import { type OptionalSchema, optional, orNull, type ValueOf } from '../schema/schema.ts';
import { list, record, table } from '../schema/structures.ts';
import { fromTo, largestNumber, number, oneOf, text, wholeNumber } from '../schema/values.ts';

/** Where a machine's X0 Y0 lies on its bed. From a top-left origin Y runs down, from the others up. */
const origin = oneOf(['top-left', 'bottom-left', 'centre']);
export type Origin = ValueOf<typeof origin>;

const aboveZero = fromTo(null, largestNumber);
const fromZero = fromTo(0, largestNumber);

/** A lens that can be put into a machine. The first one is in it where a job says nothing. */
const lens = record({ id: text, name: text });
export type Lens = ValueOf<typeof lens>;

/** A machine as the planner needs it; lengths in mm, speeds in mm/s, accelerations in mm/s². */
export const machineSchema = record({
  id: text,
  name: text,
  /** Such as `CO₂ 60 W`. */
  source: text,
  bedWidth: aboveZero,
  bedHeight: aboveZero,
  origin,
  /** How near artwork may come to the edge of the bed. */
  margin: fromZero,
  /** The top speed while lit. */
  topSpeed: aboveZero,
  /** The speed of unlit moves. */
  travelSpeed: aboveZero,
  acceleration: aboveZero,
  /** How far corners may be cut, if only in thought, to set the speed through them. */
  cornerDeviation: aboveZero,
  /** The S word that means full power. */
  powerScale: aboveZero,
  minLineSpacing: aboveZero,
  /** The power of its beam as its maker says, and as it was measured, in watts. */
  ratedW: optional(aboveZero),
  measuredW: optional(orNull(aboveZero)),
  /** The top speed of an operation, where it is below that of the machine. */
  topSpeeds: optional(table(aboveZero, (operation) => `top speed of ${operation}`)) as OptionalSchema<
    Readonly<Partial<Record<Operation, number>>>
  >,
  /** Below this share of its power the beam does not light, and above this it should not be driven, in %. */
  leastPower: optional(number(0, 100)),
  mostPower: optional(number(0, 100)),
  /** How deep and how high its focus goes, in mm above the stock, and how fast; missing where it is set by hand. */
  focus: optional(record({ lowest: number(), highest: number(), speed: aboveZero })),
  /** What blows at its beam: levels, and a pressure up to so many bar; missing where nothing does that it could switch. */
  air: optional(record({ levels: list(oneOf(['low', 'high'])), mostBar: orNull(aboveZero) })),
  /** How wide the gaps are between what stock lies on, in mm: the cells of a honeycomb, the pitch of bars. */
  bedGapMm: optional(aboveZero),
  lenses: optional(list(lens, { each: (place) => `lens ${place + 1}`, isPlaced: false })),
  address: record({ host: text, port: wholeNumber(1, 65_535) }),
});
export type Machine = ValueOf<typeof machineSchema>;

/** How fast a machine goes, in mm/s, while it does an operation. */
export function topSpeedOf({ topSpeed, topSpeeds }: Machine, operation: Operation): number {
  return Math.min(topSpeed, topSpeeds?.[operation] ?? topSpeed);
}

/** The whole bed of a machine. */
export function bedBox(machine: Pick<Machine, 'bedWidth' | 'bedHeight'>): Box {
  return { minX: 0, minY: 0, maxX: machine.bedWidth, maxY: machine.bedHeight };
}

/** The power of a machine's beam in watts: as measured, else as rated, else as its description says; null where nothing does. */
export function wattsOf({
  measuredW,
  ratedW,
  source,
}: Pick<Machine, 'measuredW' | 'ratedW' | 'source'>): number | null {
  const said = /([\d.]+)\s*W\b/.exec(source);
  return measuredW ?? ratedW ?? (said ? Number(said[1]) : null);
}
