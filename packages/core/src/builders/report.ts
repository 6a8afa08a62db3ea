import { boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { flatten, polylineLength, signedArea } from '../geometry/paths/flatten.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { type Assembly, type AssemblyReport, checkAssembly } from './assembly/assembly.ts';
import { extrusionOf } from './assembly/extrusion.ts';
import { grownBox, type Place, sharedBox, type Vec3 } from './assembly/space.ts';
import type { Built, BuiltNote } from './builder.ts';

/** One part in figures, in mm and mm². */
interface PartFigures {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly areaMm2: number;
  readonly cutMm: number;
  /** Where its (0, 0) lies when all is put together, and which way its x and its y go; null for what is folded or bent. */
  readonly place: Place | null;
  /** The parts that it lies at, by name. */
  readonly meets: readonly string[];
}

/** What was built, in figures. */
export interface BuiltFigures {
  readonly parts: readonly PartFigures[];
  readonly insideMm: Vec3 | null;
  readonly outsideMm: Vec3;
  /** What it holds, in mm³; null where it holds nothing. */
  readonly holdsMm3: number | null;
  readonly cutMm: number;
  readonly areaMm2: number;
  readonly playMm: number;
  readonly notes: readonly BuiltNote[];
  readonly assembly: AssemblyReport;
}

/** Adds up what was built, and puts it together to see whether it goes. */
export function reportOfBuilt({ parts, sizes, playMm, notes, assembly }: Built): BuiltFigures {
  const solidsOf = (id: string) => assembly.solids.filter(({ partId }) => partId === id);
  const meets = meetingsIn(assembly, playMm);
  const figures = parts.map(({ id, name, cut }): PartFigures => {
    const box = pathBounds(cut);
    const lines = flatten(cut);
    const areas = lines.filter(({ closed }) => closed).map((line) => Math.abs(signedArea(line)));
    areas.sort((a, b) => b - a);
    const solids = solidsOf(id);
    return {
      id,
      name,
      widthMm: boxWidth(box),
      heightMm: boxHeight(box),
      // The largest is the outline, the others are holes in it.
      areaMm2: areas.reduce((sum, area, i) => (i === 0 ? area : sum - area), 0),
      cutMm: lines.reduce((sum, line) => sum + polylineLength(line), 0),
      place: solids.length === 1 && !solids[0].hasOwnFrame ? solids[0].place : null,
      meets: parts.filter((other) => meets.has(pairOf(id, other.id))).map((other) => other.name),
    };
  });
  const { inside } = sizes;
  return {
    parts: figures,
    insideMm: inside,
    outsideMm: sizes.outside,
    holdsMm3: sizes.holdsMm3 ?? (inside && inside[0] * inside[1] * inside[2]),
    cutMm: figures.reduce((sum, { cutMm }) => sum + cutMm, 0),
    areaMm2: figures.reduce((sum, { areaMm2 }) => sum + areaMm2, 0),
    playMm,
    notes: notes ?? [],
    assembly: checkAssembly(assembly),
  };
}

const pairOf = (a: string, b: string) => (a < b ? `${a} ${b}` : `${b} ${a}`);

/** So far apart, beside their play, parts still lie at each other, in mm. */
const nearMm = 0.01;

/** Which parts lie at each other when all is put together, by their bounds. */
function meetingsIn({ solids }: Assembly, playMm: number): Set<string> {
  const reach = Math.max(0, playMm) + nearMm;
  const grown = solids.map((solid) => {
    const { partId, box } = extrusionOf(solid);
    return { partId, box: grownBox(box, reach / 2) };
  });
  const found = new Set<string>();
  grown.forEach((a, i) => {
    for (const b of grown.slice(i + 1)) {
      if (a.partId !== b.partId && sharedBox(a.box, b.box)) found.add(pairOf(a.partId, b.partId));
    }
  });
  return found;
}
