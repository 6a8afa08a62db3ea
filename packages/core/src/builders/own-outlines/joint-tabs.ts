import type { Box } from '../../geometry/paths/box.ts';
import { invert, type Matrix } from '../../geometry/paths/matrix.ts';
import { appendPath, type Path, PathBuilder, transformPath } from '../../geometry/paths/path.ts';
import type { Box3 } from '../assembly/space.ts';
import type { Trouble } from '../fields.ts';
import { formPath } from '../forms.ts';
import { rounded, roundedDown, roundedUp } from '../rounding.ts';
import { jointMargin } from '../strips.ts';
import { tabThrough } from '../tab-joint.ts';
import { type Place, type StraightEdge, toEdge } from './edges.ts';
import { boltSizes, jointFields } from './joint-numbers.ts';
import type { JointAsked, JointPlan } from './joint-plan.ts';
import { spaceAt } from './placed.ts';
import { hasStock, isAllStock } from './stock-in.ts';

/** What tabs and their slots come to, in mm. */
interface TabFrame {
  /** The middles of tabs along the edge, and of bolts between them. */
  readonly tabs: readonly number[];
  readonly bolts: readonly number[];
  /** How much wider a slot is than the stock is thick. */
  readonly slotPlay: number;
  /** How far what is cut beside a slot goes on beyond its ends, and from its sides; 0 for nothing. */
  readonly overMm: number;
  readonly besideMm: number;
  /** What must be free between two tabs. */
  readonly apart: number;
}

/** So much stock may be stretched where it bends: wood and acrylic bear it. */
const mostStrain = 0.01;

/** So far a bolt goes on behind its nut, and so much is free at its end, in mm. */
const behindNut = 1;
/** So much stock is left between an edge and a nut at least, in mm. */
const beforeNut = 3;

function frameOf({ numbers, t, playMm, first }: JointAsked): TabFrame {
  const { kind, tabs: count, narrower, strip, room, bolt } = numbers;
  const pitch = first.edge.lengthMm / count;
  const tabs = Array.from({ length: count }, (_, i) => (i + 0.5) * pitch - first.edge.lengthMm / 2);
  const bolts = kind === 'bolt' ? tabs.slice(1).map((middle) => middle - pitch / 2) : [];
  if (kind !== 'flex') {
    const apart = kind === 'bolt' ? boltSizes[bolt].hole + 2 * t : t;
    return { tabs, bolts, slotPlay: playMm, overMm: 0, besideMm: 0, apart };
  }
  // A strip that is held at one end and kept straight at the other, bent by δ over a length l: its strain is 3 b δ / l².
  const overMm = Math.max(strip, Math.sqrt((3 * strip * (narrower / 2)) / mostStrain));
  return { tabs, bolts, slotPlay: playMm - narrower, overMm, besideMm: strip + room, apart: 2 * overMm + t };
}

/** Tabs of the first part's edge in slots of the second, with what makes slots give way, or bolts between them. */
export function planTabs(asked: JointAsked): JointPlan | Trouble[] {
  const { numbers, t, first, second } = asked;
  const frame = frameOf(asked);
  const troubles = troublesWithTabs(asked, frame);
  if (troubles.length > 0) return troubles;
  const { tabWidth, inset } = numbers;
  const openings = frame.tabs.map((middle, i) => {
    const box: Box3 = { min: [middle - tabWidth / 2, inset, -t], max: [middle + tabWidth / 2, inset + t, 0] };
    return tabThrough({ name: `Tab ${i + 1} in “${second.name}”`, box, thick: 1, long: 0 }, frame.slotPlay);
  });
  const [slots, slits, free] = [new PathBuilder(), new PathBuilder(), new PathBuilder()];
  const { strip, shift } = numbers;
  const { overMm, besideMm } = frame;
  for (const { opening } of openings) {
    const [left, low] = [opening.min[0] + shift, opening.min[1]];
    const [right, high] = [opening.max[0] + shift, opening.max[1]];
    slots.ring(rectangle(left, low, right, high));
    if (overMm === 0) continue;
    for (const y of [low, high]) {
      slits
        .moveTo(left - overMm, y)
        .lineTo(left, y)
        .moveTo(right, y)
        .lineTo(right + overMm, y);
    }
    free.ring(rectangle(left - overMm, low - besideMm, right + overMm, low - strip));
    free.ring(rectangle(left - overMm, high + strip, right + overMm, high + besideMm));
  }
  for (const middle of frame.bolts) {
    const form = formPath({ kind: 'round', radius: boltSizes[numbers.bolt].hole / 2 }, 0);
    appendPath(free, transformPath(form, [1, 0, 0, 1, middle + shift, inset + t / 2]), true);
  }
  const freeInSecond = inPart(second.edge, free.build());
  const forNuts = frame.bolts.map((middle) => nutPlaces(asked, middle));
  const nuts = new PathBuilder();
  for (const places of forNuts) nuts.ring(places.flat());
  const holes = new PathBuilder();
  for (const path of [inPart(second.edge, slots.build()), freeInSecond, inPart(second.edge, slits.build())]) {
    appendPath(holes, path, true);
  }
  return {
    firstPlaces: edgeWith(asked, frame, forNuts),
    secondPlaces: null,
    playMm: frame.slotPlay,
    holes: holes.build(),
    hull: [spaceAt(first.standing, first.path), spaceAt(second.standing, second.path)],
    voids: [
      ...openings.flatMap(({ voids }) => voids),
      spaceAt(second.standing, freeInSecond),
      spaceAt(first.standing, inPart(first.edge, nuts.build())),
    ],
    joints: openings.flatMap(({ joints }) => joints),
  };
}

const rectangle = (left: number, low: number, right: number, high: number) => [
  ...[left, low, right, low],
  ...[right, high, left, high],
];

/** A path in an edge's frame, in that of its part. */
const inPart = (edge: StraightEdge, path: Path): Path => transformPath(path, invert(toEdge(edge)) as Matrix);

/** The gap for a bolt that comes in from the edge, and for its nut across it: from the edge in, round, and out. */
function nutPlaces({ numbers, t }: JointAsked, middle: number): Place[] {
  const { hole, nutWide } = boltSizes[numbers.bolt];
  const { low, high, end } = nutDepths(numbers, t);
  const [half, halfNut] = [hole / 2, (nutWide + numbers.nutPlay) / 2];
  const left: Place[] = [
    [middle - half, 0],
    [middle - half, low],
    [middle - halfNut, low],
    [middle - halfNut, high],
    [middle - half, high],
    [middle - half, end],
  ];
  const right = left.map(([place, depth]): Place => [2 * middle - place, depth]);
  return [...left, ...right.reverse()];
}

/** How deep in the first part a nut lies, and a bolt ends, in mm. */
function nutDepths({ bolt, boltLength, nutPlay }: JointAsked['numbers'], t: number) {
  const high = boltLength - t - behindNut;
  return { low: high - boltSizes[bolt].nutHigh - nutPlay, high, end: high + 2 * behindNut };
}

/** The first part's edge with its tabs, and with the gaps for nuts between them. */
function edgeWith({ numbers, t, first }: JointAsked, { tabs }: TabFrame, nuts: readonly (readonly Place[])[]): Place[] {
  const half = first.edge.lengthMm / 2;
  const width = numbers.tabWidth / 2;
  const between = tabs.flatMap((middle, i): Place[] => [
    [middle - width, 0],
    [middle - width, -t],
    [middle + width, -t],
    [middle + width, 0],
    ...(nuts[i] ?? []),
  ]);
  return [[-half, 0], ...between, [half, 0]];
}

function troublesWithTabs(asked: JointAsked, frame: TabFrame): Trouble[] {
  const { numbers, t, first, second } = asked;
  const { kind, tabs, tabWidth, inset, shift } = numbers;
  const lengthMm = first.edge.lengthMm;
  if (kind === 'bolt' && tabs < 2) {
    return [{ field: 'tabs', message: 'Bolts go between tabs: take two tabs or more.', nearest: 2 }];
  }
  if (tabs * (tabWidth + frame.apart) > lengthMm + 1e-9) {
    const message = `${tabs} tabs of ${tabWidth} mm do not fit on an edge of ${rounded(lengthMm)} mm: each needs ${rounded(frame.apart)} mm beside it.`;
    const fitting = Math.floor(lengthMm / (tabWidth + frame.apart));
    if (fitting >= (kind === 'bolt' ? 2 : 1)) return [{ field: 'tabs', message, nearest: fitting }];
    const narrow = roundedDown(lengthMm / tabs - frame.apart);
    return [{ field: 'tabWidth', message, nearest: narrow >= jointFields.tabWidth.least ? narrow : null }];
  }
  const troubles = [...troublesWithGiving(asked, frame), ...troublesWithBolts(asked, frame)];
  const least = frame.besideMm + Math.max(t, kind === 'bolt' ? boltSizes[numbers.bolt].hole / 2 : 0);
  if (inset < least) {
    const message = `Slots ${inset} mm from the edge leave too little stock beside them; they need ${rounded(least)} mm.`;
    troubles.push({ field: 'inset', message, nearest: roundedUp(least) });
  }
  if (troubles.length > 0) return troubles;
  const around = (middle: number, halfLong: number, halfWide: number): Box => ({
    minX: middle + shift - halfLong - t / 2,
    minY: inset + t / 2 - halfWide - t / 2,
    maxX: middle + shift + halfLong + t / 2,
    maxY: inset + t / 2 + halfWide + t / 2,
  });
  const radius = boltSizes[numbers.bolt].hole / 2;
  const isIn = isAllStock(second.stock, [
    ...frame.tabs.map((middle) => around(middle, tabWidth / 2 + frame.overMm, t / 2 + frame.besideMm)),
    ...frame.bolts.map((middle) => around(middle, radius, radius)),
  ]);
  if (!isIn) {
    const message = `The slots do not lie in “${second.name}”, with ${rounded(t / 2)} mm of stock around them: shift them, or take another edge.`;
    troubles.push({ field: 'second', message, nearest: null });
  }
  const half = tabWidth / 2;
  const tips = frame.tabs.map((middle) => ({ minX: middle - half, minY: -t, maxX: middle + half, maxY: -1e-3 }));
  const isInWay = hasStock(first.stock, tips);
  if (isInWay) {
    const message = `“${first.name}” has stock where the tabs of this edge would be: take another edge.`;
    troubles.push({ field: 'first', message, nearest: null });
  }
  return troubles;
}

function troublesWithGiving({ numbers, t }: JointAsked, { slotPlay }: TabFrame): Trouble[] {
  const { kind, narrower, strip, room } = numbers;
  if (kind !== 'flex') return [];
  if (t + slotPlay <= 0) {
    const message = `Slots that are ${narrower} mm narrower than stock of ${rounded(t)} mm close.`;
    return [{ field: 'narrower', message, nearest: roundedDown(t / 2) }];
  }
  const least = narrower / 2 + 2 * jointMargin;
  if (strip < least) {
    const message = `A strip of ${strip} mm breaks where a tab presses it aside by ${rounded(narrower / 2)} mm; take ${rounded(least)} mm.`;
    return [{ field: 'strip', message, nearest: roundedUp(least) }];
  }
  if (room >= narrower / 2) return [];
  const message = `The strips bend by ${rounded(narrower / 2)} mm, and have ${room} mm of room.`;
  return [{ field: 'room', message, nearest: roundedUp(narrower / 2) }];
}

function troublesWithBolts({ numbers, t, first }: JointAsked, { bolts }: TabFrame): Trouble[] {
  if (numbers.kind !== 'bolt') return [];
  const { low, end } = nutDepths(numbers, t);
  if (low < beforeNut) {
    const needed = roundedUp(numbers.boltLength + beforeNut - low);
    const message = `A bolt of ${numbers.boltLength} mm is too short: with its nut ${beforeNut} mm inside the edge it takes ${needed} mm.`;
    return [{ field: 'boltLength', message, nearest: needed }];
  }
  const half = (boltSizes[numbers.bolt].nutWide + numbers.nutPlay) / 2 + 1;
  const rooms = bolts.map((middle) => ({ minX: middle - half, minY: 0, maxX: middle + half, maxY: end + 1 }));
  if (isAllStock(first.stock, rooms)) return [];
  const message = `“${first.name}” has no room for a bolt that goes ${rounded(end)} mm into it.`;
  return [{ field: 'boltLength', message, nearest: null }];
}
