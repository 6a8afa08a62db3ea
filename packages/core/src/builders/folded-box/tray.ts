import type { Joint } from '../assembly/assembly.ts';
import { type Box3, cross, type Place, type Solid, type Vec3 } from '../assembly/space.ts';
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
type Ring = readonly Point[];

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

/** Where the bends and the edges of a net lie, from the middle of the inside, in mm. Walls are measured from their bends. */
function measuresOf({ inside, bend, tab, flapMm }: TrayWish) {
  const [w, d, h] = inside;
  const { thickness: t, line } = bend;
  /** For a flap behind the front. */
  const room = flapMm === null ? 0 : t;
  const [low, high] = tabRange(h, bend);
  const tabLong = line + tab.widthMm;
  return {
    /** Half of a wall with tabs, between the bends of these. */
    half: w / 2 + line,
    /** Half of a wall with what it is bent around. */
    halfOut: w / 2 + t,
    outer: w / 2 + 2 * t,
    atFront: d / 2 + room + line,
    atBack: d / 2 + line,
    atSide: w / 2 + t + line,
    frontOut: d / 2 + room + t,
    backOut: d / 2 + t,
    wall: line + h,
    /** From the bend of the back: where the top begins, and where its flap does. */
    toTop: 2 * line + h,
    toFlap: 4 * line + h + d,
    flapHalf: w / 2 - clear * t,
    low,
    high,
    tabLong,
    slant: tab.slope * tabLong,
  };
}

type Measures = ReturnType<typeof measuresOf>;

/** What is to be cut, bent and glued for a tray. */
export function trayOf(wish: TrayWish): Tray {
  const measures = measuresOf(wish);
  const windows = windowIn(wish, measures);
  const net = outlineOf(wish, measures);
  return {
    rings: [net, ...windows].map((ring) => ring.flat()),
    bends: bendsOf(wish, measures),
    ...foldedTray(wish, measures, windows),
  };
}

/** A window in the top, or in the bottom where that is all there is. */
function windowIn({ inside: [w, d], rimMm, flapMm, bend }: TrayWish, { atBack, toTop }: Measures): Ring[] {
  if (rimMm === null) return [];
  const begins = flapMm === null ? -d / 2 : atBack + toTop + bend.line;
  return [rectangle([-w / 2, begins], [w / 2, begins + d], -rimMm)];
}

/** Round the net, from the left of its front on as one looks at it. */
function outlineOf({ flapMm, bend: { line } }: TrayWish, measures: Measures): Ring {
  const { half, outer, atFront, atBack, atSide, frontOut, backOut, wall } = measures;
  const { toTop, toFlap, flapHalf, low, high, tabLong, slant } = measures;
  /** A wall with its tabs, from its left to its right as one looks outwards: along it, and away from its bend. */
  const tabbed = (top: Ring): Point[] => {
    const left: Point[] = [
      [-half, 0],
      [-half, low],
      [-half - tabLong, low + slant],
      [-half - tabLong, high - slant],
      [-half, high],
    ];
    return [...left, ...top, ...mirrored(left)];
  };
  const edge: Point[] = [
    [-half, wall],
    [half, wall],
  ];
  const topLeft: Point[] = [
    [-half, toTop + line],
    [-outer, toTop + line],
    [-outer, toFlap],
    [-flapHalf, toFlap],
    [-flapHalf + flapSlope * (flapMm ?? 0), toFlap + line + (flapMm ?? 0)],
  ];
  const back = flapMm === null ? edge : [...topLeft, ...mirrored(topLeft)];
  const right: Point[] = [
    [atSide, -atFront],
    [atSide, -frontOut],
    [atSide + wall, -frontOut],
    [atSide + wall, backOut],
    [atSide, backOut],
    [atSide, atBack],
  ];
  return [
    ...tabbed(edge).map(([along, away]): Point => [along, -atFront - away]),
    ...right,
    ...tabbed(back).map(([along, away]): Point => [-along, atBack + away]),
    ...mirrored(right),
  ];
}

/** Every line that the card is bent at. */
function bendsOf({ flapMm }: TrayWish, measures: Measures): (readonly [Point, Point])[] {
  const { half, atFront, atBack, atSide, toTop, toFlap, flapHalf, low, high } = measures;
  const across = (x: number, y: number): readonly [Point, Point] => [
    [-x, y],
    [x, y],
  ];
  const upright = (x: number, from: number, to: number): readonly [Point, Point] => [
    [x, from],
    [x, to],
  ];
  return [
    across(half, -atFront),
    across(half, atBack),
    ...[-1, 1].flatMap((side) => [
      upright(side * atSide, -atFront, atBack),
      upright(side * half, -atFront - low, -atFront - high),
      upright(side * half, atBack + low, atBack + high),
    ]),
    ...(flapMm === null ? [] : [across(half, atBack + toTop), across(flapHalf, atBack + toFlap)]),
  ];
}

/** The panels of a net as they lie when it is folded, and where they are glued. */
function foldedTray(wish: TrayWish, measures: Measures, windows: readonly Ring[]): Pick<Tray, 'solids' | 'joints'> {
  const { partId, name, inside, place, bend, tab, flapMm } = wish;
  const { half, halfOut, outer, atFront, atBack, atSide, frontOut, backOut, wall } = measures;
  const { toTop, toFlap, flapHalf, low, high, tabLong, slant } = measures;
  const { thickness: t, line } = bend;
  const [, d, h] = inside;
  const solids: Solid[] = [];
  const joints: Joint[] = [];
  const add = (panel: Place, ring: Ring, holes: readonly Ring[] = [], isInner = false) => {
    const outlines = [ring, ...holes].map((points) => ({ points: new Float64Array(points.flat()), closed: true }));
    solids.push({ partId, outlines, place: panel, depth: t, isInner });
  };
  const glue = (words: string, panel: Place, a: Point, b: Point, axis: 0 | 1) => {
    joints.push({ name: `${name}, ${words}`, region: boxAt(panel, a, b, 2 * t, -t), axis, faces: 'all', gapMm: 0 });
  };
  add(place, rectangle([-outer, -frontOut], [outer, backOut]), flapMm === null ? windows : []);
  for (const side of [-1, 1] as const) {
    const from = side === -1 ? -atSide - wall : atSide + line;
    add(foldedFrom(place, [side, 0], atSide, bend), rectangle([from, -frontOut], [from + h, backOut]));
  }
  for (const { words, way, crease, extra } of [
    { words: 'front', way: -1, crease: atFront, extra: 0 },
    { words: 'back', way: 1, crease: atBack, extra: flapMm === null ? 0 : t },
  ] as const) {
    const wallAt = foldedFrom(place, [0, way], crease, bend);
    const on = (along: number, away: number): Point => [along, way * (crease + away)];
    add(wallAt, rectangle(on(-halfOut, line), on(halfOut, wall + extra)));
    for (const side of [-1, 1] as const) {
      const tabAt = foldedFrom(wallAt, [side, 0], half, bend);
      const [root, end] = [side * (half + line), side * (half + tabLong)];
      const atRoot = tab.slope * line;
      const ring = [on(root, low + atRoot), on(end, low + slant), on(end, high - slant), on(root, high - atRoot)];
      add(tabAt, ring, [], true);
      // Where the tab is whole all along: about its middle, half as far as its end is high.
      const [middle, reach] = [(low + high) / 2, (high - low - 2 * slant) / 4];
      glue(`a tab of its ${words} in its side`, tabAt, on(root, middle - reach), on(end, middle + reach), 0);
    }
  }
  if (flapMm === null) return { solids, joints };
  const topAt = foldedFrom(foldedFrom(place, [0, 1], atBack, bend), [0, 1], atBack + toTop, bend);
  const begins = atBack + toTop + line;
  add(topAt, rectangle([-outer, begins], [outer, begins + d + t]), windows);
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
  glue('its flap behind its front', flapAt, [-end, from], [end, from + flapMm], 1);
  return { solids, joints };
}

/** The same points on the other side of the middle, the last one first. */
function mirrored(points: Ring): Point[] {
  return points.map(([along, away]): Point => [-along, away]).reverse();
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
function boxAt({ origin, u, v }: Place, a: Point, b: Point, depth: number, from: number): Box3 {
  const n = cross(u, v);
  const corner = ([x, y]: Point, deep: number) => origin.map((mm, i) => mm + u[i] * x + v[i] * y + n[i] * deep);
  const [p, q] = [corner(a, from), corner(b, from + depth)];
  return {
    min: p.map((mm, i) => Math.min(mm, q[i])) as unknown as Vec3,
    max: p.map((mm, i) => Math.max(mm, q[i])) as unknown as Vec3,
  };
}
