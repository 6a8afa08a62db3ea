import { boxExtrusion, type Extrusion, extrusionOf, overlapOf, sectionOf, volumeWithin } from './extrusion.ts';
import { type Axis, axes, type Box3, type Solid, sharedBox, sidesOf, type Vec3 } from './space.ts';
import type { Interval } from './sweep.ts';

/**
 * Where parts meet: within a box, along an axis, they come one after the other and fill it but for the play. `faces` says
 * which of them have play: where cut edges face each other, or all.
 */
export interface Joint {
  /** What it joins, in words. */
  readonly name: string;
  readonly region: Box3;
  readonly axis: Axis;
  readonly faces: 'cut edges' | 'all';
  /** Between two faces that have play, in mm; below 0 they press. */
  readonly gapMm: number;
  /** Where its play is part of what is left free. */
  readonly isFree?: boolean;
}

/** A stretch of space: a box, or what an outline fills over some depth. */
type Space = Box3 | Omit<Solid, 'partId'>;

/** Parts as they lie when they are put together. */
export interface Assembly {
  readonly solids: readonly Solid[];
  /** What all of it fills from outside; they do not overlap. */
  readonly hull: readonly Space[];
  /** What is left free in that, such as the inside; they do not overlap. */
  readonly voids: readonly Space[];
  readonly joints: readonly Joint[];
}

/** Two parts that would be in the same place. */
interface Overlap {
  readonly partIds: readonly [string, string];
  readonly mm3: number;
}

/** A joint that has not the play it should have. */
interface WrongJoint {
  readonly name: string;
  /** The gap that is furthest off, in mm; null where something does not go through the whole of the joint. */
  readonly gapMm: number | null;
}

/** What the check of an assembly found; all empty and 0 where it goes together. */
export interface AssemblyReport {
  readonly goesTogether: boolean;
  readonly overlaps: readonly Overlap[];
  readonly wrongJoints: readonly WrongJoint[];
  /** What lies in what should be free: the parts. */
  readonly intruders: readonly string[];
  /** How much of the walls is not filled though no play explains it, in mm³. */
  readonly gapMm3: number;
}

/** What is smaller is rounding, in mm³ and mm. */
const roundingMm3 = 1e-4;
const roundingMm = 1e-6;

/**
 * Holds parts that are put together against what they should come to: none is where another is, joints have their play all
 * over, what should be free is free, and there is no gap besides. Exact but for rounding: volumes are integrals.
 */
export function checkAssembly({ solids, hull, voids, joints }: Assembly): AssemblyReport {
  const extrusions = solids.map(extrusionOf);
  const [whole, free] = [hull, voids].map((spaces) => spaces.map(spaceAsExtrusion));
  const shell = extrusions.filter((_, i) => !solids[i].isInner);
  const measured = joints.map((joint) => measureJoint(joint, extrusions));
  const pressed = total(measured.map(({ pressedMm3 }) => pressedMm3));
  const inWalls = measured.filter((_, i) => !joints[i].isFree);
  const playMm3 = total(inWalls.map(({ gapMm3: gap, pressedMm3 }) => gap - pressedMm3));
  const overlaps = overlapsAmong(extrusions);
  const overlapMm3 = total(overlaps.map(({ mm3 }) => mm3));
  const isPressed = Math.abs(overlapMm3 - pressed) < roundingMm3;
  const inFree = new Map(extrusions.map((solid) => [solid, free.map((space) => sharedWith(solid, space))]));
  const intruders = shell.filter((solid) => inFree.get(solid)?.some((mm3) => mm3 > roundingMm3));
  // What two fill counts twice; what stands in what is free counts beyond that.
  const filled = total([...inFree].map(([solid, shares]) => volumeOf(solid) - total(shares)));
  const gapMm3 = total(whole.map(volumeOf)) - total(free.map(volumeOf)) - filled - playMm3;
  const report = {
    overlaps: isPressed ? [] : overlaps.filter(({ mm3 }) => mm3 > roundingMm3),
    wrongJoints: measured.flatMap(({ wrong }) => (wrong ? [wrong] : [])),
    intruders: [...new Set(intruders.map(({ partId }) => partId))],
    gapMm3: Math.abs(gapMm3) < roundingMm3 ? 0 : gapMm3,
  };
  const goesTogether =
    report.overlaps.length + report.wrongJoints.length + report.intruders.length === 0 && report.gapMm3 === 0;
  return { goesTogether, ...report };
}

function overlapsAmong(extrusions: readonly Extrusion[]): Overlap[] {
  const found: Overlap[] = [];
  extrusions.forEach((a, i) => {
    for (const b of extrusions.slice(i + 1)) {
      if (!sharedBox(a.box, b.box)) continue;
      const mm3 = overlapOf(a, b);
      if (mm3 > 0) found.push({ partIds: [a.partId, b.partId], mm3 });
    }
  });
  return found;
}

function spaceAsExtrusion(space: Space): Extrusion {
  return 'min' in space ? boxExtrusion(space) : extrusionOf({ ...space, partId: '' });
}

const volumeOf = (solid: Extrusion) => volumeWithin(solid, solid.box);

/** How much of a solid lies in a space, in mm³. */
function sharedWith(solid: Extrusion, space: Extrusion): number {
  if (!sharedBox(space.box, solid.box)) return 0;
  return space.isBox ? volumeWithin(solid, space.box) : overlapOf(solid, space);
}

const total = (numbers: readonly number[]) => numbers.reduce((sum, number) => sum + number, 0);

interface MeasuredJoint {
  readonly gapMm3: number;
  readonly pressedMm3: number;
  readonly wrong: WrongJoint | null;
}

/** A stretch of a line that a part fills. `isFlat` where its ends are the faces of the stock, and not cut edges. */
interface Stretch {
  readonly interval: Interval;
  readonly isFlat: boolean;
}

/** Goes along a joint's middle, and holds what is in its box against what lies on that line. */
function measureJoint(joint: Joint, extrusions: readonly Extrusion[]): MeasuredJoint {
  const { region, axis, name, gapMm } = joint;
  const near = extrusions.filter(({ box }) => sharedBox(box, region));
  const middle = region.min.map((low, i) => (low + region.max[i]) / 2) as unknown as Vec3;
  const [lo, hi] = [region.min[axis], region.max[axis]];
  const stretches = near
    .flatMap((solid) =>
      sectionOf(solid, axis, middle).flatMap(([from, to]): Stretch[] =>
        to <= lo || from >= hi
          ? []
          : [{ interval: [Math.max(from, lo), Math.min(to, hi)], isFlat: solid.axis === axis }],
      ),
    )
    .sort((a, b) => a.interval[0] - b.interval[0]);
  const across = axes.reduce<number>((area, entry) => (entry === axis ? area : area * sidesOf(region)[entry]), 1);
  let [worst, off, gap, pressed] = [0, 0, 0, 0];
  const meet = (from: number, to: number, wanted: number) => {
    const found = to - from;
    if (found > 0) gap += found;
    else pressed -= found;
    if (Math.abs(found - wanted) <= off) return;
    [off, worst] = [Math.abs(found - wanted), found];
  };
  let before: Stretch | null = null;
  for (const stretch of stretches) {
    if (before) {
      const hasPlay = joint.faces === 'all' || !(before.isFlat || stretch.isFlat);
      meet(before.interval[1], stretch.interval[0], hasPlay ? gapMm : 0);
    }
    before = stretch;
  }
  meet(lo, stretches[0]?.interval[0] ?? hi, 0);
  meet(before?.interval[1] ?? hi, hi, 0);
  const filled = total(near.map((solid) => volumeWithin(solid, region)));
  const onLine = total(stretches.map(({ interval: [from, to] }) => to - from)) * across;
  const isWhole = Math.abs(filled - onLine) < roundingMm3;
  const wrong = off > roundingMm || !isWhole ? { name, gapMm: isWhole ? worst : null } : null;
  return { gapMm3: gap * across, pressedMm3: pressed * across, wrong };
}
