import type { Joint } from '../assembly/assembly.ts';
import type { Box3, Place, Solid, Vec3 } from '../assembly/space.ts';
import { type Bend, foldedFrom } from './panels.ts';

/** A tray of one piece: its sides stand on its bottom, tabs at the ends of front and back are glued to the others inside. */
export interface TrayWish {
  readonly partId: string;
  readonly name: string;
  /** What is clear inside, between the tabs, in mm. */
  readonly inside: Vec3;
  /** Where its bottom lies, by the middle of the inside. */
  readonly place: Place;
  readonly bend: Bend;
  readonly tab: { readonly widthMm: number; readonly slope: number };
  /** A top that hangs on its back, with a flap that goes in behind its front; so deep, in mm. */
  readonly flapMm: number | null;
  /** How wide a rim is left around a window in its top, or in its bottom where it has none; null for no window. */
  readonly rimMm: number | null;
}

type Point = readonly [x: number, y: number];

/** A tray, drawn from outside and put together. */
export interface Tray {
  /** Its outline and its window; each is x, y, x, y, … */
  readonly rings: readonly (readonly number[])[];
  readonly bends: readonly (readonly [Point, Point])[];
  readonly solids: readonly Solid[];
  readonly joints: readonly Joint[];
}

/** Tabs and flaps stay so far from what is beside them, as a share of the thickness. */
const clear = 0.5;

/** From where to where tabs go along a wall, from the bend that it stands on, in mm. */
export function tabRange(heightMm: number, { thickness: t, line }: Bend): readonly [number, number] {
  return [Math.max(line, t - line) + clear * t, line + heightMm - clear * t];
}

/** How much wider than its end a flap is at each side. */
const flapSlope = 0.25;

/** What is to be cut, bent and glued for a tray. */
export function trayOf(wish: TrayWish): Tray {
  const { partId, inside, place, bend, tab, flapMm, rimMm } = wish;
  const { thickness: t, line } = bend;
  const [w, d, h] = inside;
  const room = flapMm === null ? 0 : t;
  /** Half of what walls and their bends are wide, and the bends that the sides stand on. */
  const half = w / 2 + line;
  const [atFront, atBack, atSide] = [d / 2 + room + line, d / 2 + line, w / 2 + t + line];
  const wall = line + h;
  const [low, high] = tabRange(h, bend);
  const tabLong = line + tab.widthMm;
  const slant = tab.slope * tabLong;
  const outer = w / 2 + 2 * t;
  const [frontOut, backOut] = [d / 2 + room + t, d / 2 + t];

  /** A wall with its tabs, from its left to its right as one looks outwards: along it, and away from its bend. */
  const tabbed = (top: readonly Point[]): Point[] => {
    const left: Point[] = [
      [-half, low],
      [-half - tabLong, low + slant],
      [-half - tabLong, high - slant],
      [-half, high],
    ];
    const right = left.map(([along, away]): Point => [-along, away]).reverse();
    return [[-half, 0], ...left, ...top, ...right, [half, 0]];
  };
  const toTop = wall + line;
  const toFlap = toTop + line + d + line;
  const flapHalf = w / 2 - clear * t;
  const top: Point[] =
    flapMm === null
      ? [
          [-half, wall],
          [half, wall],
        ]
      : mirrored([
          [-half, toTop + line],
          [-outer, toTop + line],
          [-outer, toFlap],
          [-flapHalf, toFlap],
          [-flapHalf + flapSlope * flapMm, toFlap + line + flapMm],
        ]);
  const outline: Point[] = [
    ...tabbed([
      [-half, wall],
      [half, wall],
    ]).map(([along, away]): Point => [along, -atFront - away]),
    [atSide, -atFront],
    [atSide, -frontOut],
    [atSide + wall, -frontOut],
    [atSide + wall, backOut],
    [atSide, backOut],
    [atSide, atBack],
    ...tabbed(top).map(([along, away]): Point => [-along, atBack + away]),
    [-atSide, atBack],
    [-atSide, backOut],
    [-atSide - wall, backOut],
    [-atSide - wall, -frontOut],
    [-atSide, -frontOut],
    [-atSide, -atFront],
  ];

  const solids: Solid[] = [];
  const add = (panel: Place, ring: readonly Point[], holes: readonly (readonly Point[])[] = [], isInner = false) => {
    const outlines = [ring, ...holes].map((points) => ({ points: new Float64Array(points.flat()), closed: true }));
    solids.push({ partId, outlines, place: panel, depth: t, isInner });
  };
  const window = (from: Point, to: Point) => (rimMm === null ? [] : [rectangle(from, to, -rimMm)]);
  const bottomWindow = flapMm === null ? window([-w / 2, -d / 2], [w / 2, d / 2]) : [];
  add(place, rectangle([-outer, -frontOut], [outer, backOut]), bottomWindow);
  for (const side of [-1, 1] as const) {
    const from = side === -1 ? -atSide - wall : atSide + line;
    const sideAt = foldedFrom(place, [side, 0], atSide, bend);
    add(sideAt, rectangle([from, -frontOut], [from + h, backOut]));
  }
  const joints: Joint[] = [];
  const walls = [
    { words: 'front', way: -1, crease: atFront, extra: 0 },
    { words: 'back', way: 1, crease: atBack, extra: flapMm === null ? 0 : t },
  ] as const;
  const bends: (readonly [Point, Point])[] = [];
  for (const { words, way, crease, extra } of walls) {
    const wallAt = foldedFrom(place, [0, way], crease, bend);
    const on = (along: number, away: number): Point => [along, way * (crease + away)];
    add(wallAt, rectangle(on(-w / 2 - t, line), on(w / 2 + t, wall + extra)));
    bends.push([on(-half, 0), on(half, 0)]);
    for (const side of [-1, 1] as const) {
      const tabAt = foldedFrom(wallAt, [side, 0], half, bend);
      const ring = [
        on(side * (half + line), low + tab.slope * line),
        on(side * (half + tabLong), low + slant),
        on(side * (half + tabLong), high - slant),
        on(side * (half + line), high - tab.slope * line),
      ];
      add(tabAt, ring, [], true);
      bends.push([on(side * half, low), on(side * half, high)]);
      // Where the tab is whole all along: about its middle, half as far as its end is high.
      const [middle, reach] = [(low + high) / 2, (high - low - 2 * slant) / 4];
      const region = inSpace(
        tabAt,
        on(side * (half + line), middle - reach),
        on(side * (half + tabLong), middle + reach),
        2 * t,
        -t,
      );
      joints.push({ name: `${wish.name}, a tab of its ${words} in its side`, region, axis: 0, faces: 'all', gapMm: 0 });
    }
  }
  for (const side of [-1, 1]) {
    bends.push([
      [side * atSide, -atFront],
      [side * atSide, atBack],
    ]);
  }
  const holes = [...bottomWindow];
  if (flapMm !== null) {
    const back = foldedFrom(place, [0, 1], atBack, bend);
    const topAt = foldedFrom(back, [0, 1], atBack + toTop, bend);
    const [begins, ends] = [atBack + toTop + line, atBack + toFlap - line];
    const topWindow = window([-w / 2, begins], [w / 2, ends]);
    holes.push(...topWindow);
    add(topAt, rectangle([-outer, begins], [outer, ends + t]), topWindow);
    const flapAt = foldedFrom(topAt, [0, 1], atBack + toFlap, bend);
    const from = atBack + toFlap + line;
    const end = flapHalf - flapSlope * flapMm;
    const start = flapHalf - (flapSlope * flapMm * line) / (line + flapMm);
    const ring: Point[] = [
      [-start, from],
      [start, from],
      [end, from + flapMm],
      [-end, from + flapMm],
    ];
    add(flapAt, ring, [], true);
    bends.push([
      [-half, atBack + toTop],
      [half, atBack + toTop],
    ]);
    bends.push([
      [-flapHalf, atBack + toFlap],
      [flapHalf, atBack + toFlap],
    ]);
    const region = inSpace(flapAt, [-end, from], [end, from + flapMm], 2 * t, -t);
    joints.push({ name: `${wish.name}, its flap behind its front`, region, axis: 1, faces: 'all', gapMm: 0 });
  }
  return { rings: [outline, ...holes].map((ring) => ring.flat()), bends, solids, joints };
}

/** A line's points, and the same on the other side, backwards. */
function mirrored(points: readonly Point[]): Point[] {
  return [...points, ...points.map(([along, away]): Point => [-along, away]).reverse()];
}

/** The corners of a rectangle between two places, so much larger at each side. */
function rectangle([ax, ay]: Point, [bx, by]: Point, more = 0): Point[] {
  const [minX, maxX] = [Math.min(ax, bx) - more, Math.max(ax, bx) + more];
  const [minY, maxY] = [Math.min(ay, by) - more, Math.max(ay, by) + more];
  return [
    [minX, minY],
    [maxX, minY],
    [maxX, maxY],
    [minX, maxY],
  ];
}

/** A box in space: two corners on a panel, from so far inside of its outer face, so deep. */
function inSpace({ origin, u, v }: Place, a: Point, b: Point, depth: number, from: number): Box3 {
  const n: Vec3 = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
  const corner = ([x, y]: Point, deep: number) => origin.map((mm, i) => mm + u[i] * x + v[i] * y + n[i] * deep);
  const [p, q] = [corner(a, from), corner(b, from + depth)];
  return {
    min: p.map((mm, i) => Math.min(mm, q[i])) as unknown as Vec3,
    max: p.map((mm, i) => Math.max(mm, q[i])) as unknown as Vec3,
  };
}
