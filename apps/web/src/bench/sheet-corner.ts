import type { Sheet } from '@lambent/core/document';
import type { Point } from '@lambent/core/geometry';
import { countsDown, type Machine, toMachine } from '@lambent/core/machine';

/** Where a sheet lies by its corner nearest to the machine's zero, in the machine's frame in mm, and where a move takes it. */
export function sheetCorner(machine: Machine, { x, y, height }: Pick<Sheet, 'x' | 'y' | 'height'>) {
  const place = toMachine(machine, x, machine.origin === 'top-left' ? y : y + height);
  const movedTo = (to: Partial<Point>): Point => ({
    x: x + (to.x ?? place.x) - place.x,
    y: y + ((to.y ?? place.y) - place.y) * countsDown(machine),
  });
  return { place, movedTo };
}
