import { boxCentre } from '../../geometry/paths/box.ts';
import { boxOn, onPlace, type Plate, placeOf, thicknessOf } from '../plate.ts';
import type { Edge } from './edges.ts';

/** A stretch along a side of a plate, from the side's start, and whether it reaches out to the plate's bounds. */
interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly ownerId: string;
  /** Where the other plate of the side has ended. */
  readonly isBeyond?: true;
}

/** A side of a plate as it is gone round clockwise: what of it is whose. */
interface Side {
  readonly length: number;
  /** Takes a place along it and a depth below it to the plate's frame. */
  readonly inFrame: (along: number, depth: number) => readonly [x: number, y: number];
  /** Null where no other plate shares it. */
  readonly joined: { readonly partnerId: string; readonly stretches: readonly Stretch[] } | null;
}

/**
 * The outline of a plate with what it has of its edges, without the same direction twice, as x, y, x, y, …
 *
 * @param recess how far a cut edge stays behind where it faces one of the partner: half of half the play
 */
export function plateOutline(plate: Plate, edges: readonly Edge[], recess: number): number[] {
  const thickness = thicknessOf(plate);
  const sides = sidesOf(plate, edges);
  const points: Corner[] = [];
  sides.forEach((side, i) => {
    const before = sides[(i + 3) % 4];
    const { length, inFrame, joined } = side;
    if (!joined) {
      if (!before.joined) points.push(inFrame(0, 0));
      return;
    }
    const { partnerId } = joined;
    const isOwn = ({ ownerId }: Stretch) => ownerId === plate.id;
    let stretches = joined.stretches;
    let start = 0;
    let end = length;
    if (before.joined && !isOwn(stretches[0])) {
      // The corner is another plate's: the outline turns inside of it.
      points.push(inFrame(thickness, thickness));
      start = stretches[0].to + (isOwn(stretches[1]) && stretches[0].ownerId === partnerId ? recess : 0);
      stretches = stretches.slice(1);
    }
    const after = sides[(i + 1) % 4];
    const last = stretches[stretches.length - 1];
    if (after.joined && !isOwn(last)) {
      const inner = stretches[stretches.length - 2];
      end = last.from - (isOwn(inner) && last.ownerId === partnerId ? recess : 0);
      stretches = stretches.slice(0, -1);
    }
    const depth = (stretch: Stretch) => (isOwn(stretch) ? 0 : thickness);
    points.push(inFrame(start, depth(stretches[0])));
    stretches.forEach((stretch, k) => {
      const next = stretches[k + 1];
      if (!next || depth(next) === depth(stretch)) return;
      // What has ended does not stay behind: the play is all on this side.
      const back = stretch.isBeyond || next.isBeyond ? 2 * recess : recess;
      const place = stretch.to + (isOwn(next) ? back : -back);
      points.push(inFrame(place, depth(stretch)), inFrame(place, depth(next)));
    });
    points.push(inFrame(end, depth(stretches[stretches.length - 1])));
  });
  return withoutStraight(points);
}

/** The sides of a plate: top, right, bottom, left. */
function sidesOf(plate: Plate, edges: readonly Edge[]): Side[] {
  const place = placeOf(plate);
  const { minX, minY, maxX, maxY } = boxOn(place, plate.box);
  const [width, height] = [maxX - minX, maxY - minY];
  const onSides = edges
    .filter(({ plateIds }) => plateIds.includes(plate.id))
    .map((edge) => {
      const { x, y } = boxCentre(boxOn(place, edge.region));
      if (Math.abs(place.u[edge.axis]) === 1) return { edge, side: y < 0 ? 'top' : 'bottom' };
      return { edge, side: x < 0 ? 'left' : 'right' };
    });
  const side = (
    name: 'top' | 'right' | 'bottom' | 'left',
    length: number,
    inFrame: Side['inFrame'],
    alongOf: (x: number, y: number) => number,
  ): Side => {
    const found = onSides.find((entry) => entry.side === name);
    if (!found) return { length, inFrame, joined: null };
    const { plateIds, region, axis, pieces } = found.edge;
    const stretches = pieces
      .map(({ from, to, ownerId }): Stretch => {
        const ends = [from, to].map((value) => {
          const point: [number, number, number] = [...region.min];
          point[axis] = value;
          const { x, y } = onPlace(place, point);
          return alongOf(x, y);
        });
        return { from: Math.min(...ends), to: Math.max(...ends), ownerId };
      })
      .sort((p, q) => p.from - q.from);
    const [a, b] = plateIds;
    const partnerId = a === plate.id ? b : a;
    return { length, inFrame, joined: { partnerId, stretches: filled(stretches, length, plate.id) } };
  };
  return [
    side(
      'top',
      width,
      (along, depth) => [minX + along, minY + depth],
      (x) => x - minX,
    ),
    side(
      'right',
      height,
      (along, depth) => [maxX - depth, minY + along],
      (_, y) => y - minY,
    ),
    side(
      'bottom',
      width,
      (along, depth) => [maxX - along, maxY - depth],
      (x) => maxX - x,
    ),
    side(
      'left',
      height,
      (along, depth) => [minX + depth, maxY - along],
      (_, y) => maxY - y,
    ),
  ];
}

/** Beyond the other plate a side is the plate's own. */
function filled(stretches: readonly Stretch[], length: number, ownId: string): Stretch[] {
  const [first, last] = [stretches[0], stretches[stretches.length - 1]];
  return [
    ...(first.from > 1e-9 ? [{ from: 0, to: first.from, ownerId: ownId, isBeyond: true as const }] : []),
    ...stretches,
    ...(last.to < length - 1e-9 ? [{ from: last.to, to: length, ownerId: ownId, isBeyond: true as const }] : []),
  ];
}

type Corner = readonly [x: number, y: number];

/** Leaves out the same point twice, and points between two others on a line. */
function withoutStraight(points: readonly Corner[]): number[] {
  const near = (a: Corner, b: Corner) => Math.abs(a[0] - b[0]) < 1e-9 && Math.abs(a[1] - b[1]) < 1e-9;
  const apart = points.filter((point, i) => !near(point, points[(i + 1) % points.length]));
  const isTurn = (a: Corner, b: Corner, c: Corner) =>
    Math.abs((b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])) > 1e-9;
  const count = apart.length;
  return apart.filter((point, i) => isTurn(apart[(i + count - 1) % count], point, apart[(i + 1) % count])).flat();
}
