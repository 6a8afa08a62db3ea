import type { Point } from '../geometry/paths/matrix.ts';
import type { Machine } from './machine.ts';

type Bed = Pick<Machine, 'origin' | 'bedWidth' | 'bedHeight'>;

/** A point of the bed (mm from its top left, y down) in the machine's own frame. */
export function toMachine(bed: Bed, x: number, y: number): Point {
  switch (bed.origin) {
    case 'top-left':
      return { x, y };
    case 'bottom-left':
      return { x, y: bed.bedHeight - y };
    case 'centre':
      return { x: x - bed.bedWidth / 2, y: bed.bedHeight / 2 - y };
  }
}

/** A point of the machine's frame on the bed (mm from its top left, y down). */
export function fromMachine(bed: Bed, x: number, y: number): Point {
  switch (bed.origin) {
    case 'top-left':
      return { x, y };
    case 'bottom-left':
      return { x, y: bed.bedHeight - y };
    case 'centre':
      return { x: x + bed.bedWidth / 2, y: bed.bedHeight / 2 - y };
  }
}

/** Which way the machine counts along the bed's y, which points down: 1 downwards, -1 upwards. */
export function countsDown(bed: Pick<Bed, 'origin'>): 1 | -1 {
  return bed.origin === 'top-left' ? 1 : -1;
}

/** Where the machine's zero lies on the bed. */
export function machineZero(bed: Bed): Point {
  return fromMachine(bed, 0, 0);
}

/** Where the head rests between runs, on the bed. */
export function restingPlace(machine: Bed & Pick<Machine, 'rest'>): Point {
  return machine.rest ? fromMachine(machine, machine.rest.x, machine.rest.y) : machineZero(machine);
}

/** How far above the stock the focus rests between runs, in mm; 0 where it is not driven. */
export function restingFocus({ focus, restFocus = 0 }: Pick<Machine, 'focus' | 'restFocus'>): number {
  return focus ? restFocus : 0;
}
