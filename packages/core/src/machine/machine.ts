import type { Box } from '../geometry/paths/box.ts';
import type { Operation } from '../operations/operations.ts';

/** Where a machine's X0 Y0 lies on its bed. From a top-left origin Y runs down, from the others up. */
export type Origin = 'top-left' | 'bottom-left' | 'centre';

/** A machine as the planner needs it; lengths in mm, speeds in mm/s, accelerations in mm/s². */
export interface Machine {
  readonly id: string;
  readonly name: string;
  /** Such as `CO₂ 60 W`. */
  readonly source: string;
  readonly bedWidth: number;
  readonly bedHeight: number;
  readonly origin: Origin;
  /** How near artwork may come to the edge of the bed. */
  readonly margin: number;
  /** The top speed while lit. */
  readonly topSpeed: number;
  /** The speed of unlit moves. */
  readonly travelSpeed: number;
  readonly acceleration: number;
  /** How far corners may be cut, if only in thought, to set the speed through them. */
  readonly cornerDeviation: number;
  /** The S word that means full power. */
  readonly powerScale: number;
  readonly minLineSpacing: number;
  /** The power of its beam as its maker says, and as it was measured, in watts. */
  readonly ratedW?: number;
  readonly measuredW?: number | null;
  /** The top speed of an operation, where it is below that of the machine. */
  readonly topSpeeds?: Readonly<Partial<Record<Operation, number>>>;
  /** Below this share of its power the beam does not light, and above this it should not be driven, in %. */
  readonly leastPower?: number;
  readonly mostPower?: number;
  /** How deep and how high its focus goes, in mm above the stock, and how fast; missing where it is set by hand. */
  readonly focus?: { readonly lowest: number; readonly highest: number; readonly speed: number };
  /** What blows at its beam: levels, and a pressure up to so many bar; missing where nothing does that it could switch. */
  readonly air?: { readonly levels: readonly ('low' | 'high')[]; readonly mostBar: number | null };
  readonly lenses?: readonly Lens[];
  readonly address: { readonly host: string; readonly port: number };
}

/** How fast a machine goes, in mm/s, while it does an operation. */
export function topSpeedOf({ topSpeed, topSpeeds }: Machine, operation: Operation): number {
  return Math.min(topSpeed, topSpeeds?.[operation] ?? topSpeed);
}

/** A lens that can be put into a machine. The first one is in it where a job says nothing. */
export interface Lens {
  readonly id: string;
  readonly name: string;
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
