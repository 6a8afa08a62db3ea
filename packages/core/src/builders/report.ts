import { boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { flatten, polylineLength, signedArea } from '../geometry/paths/flatten.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { type AssemblyReport, checkAssembly } from './assembly/assembly.ts';
import type { Place, Vec3 } from './assembly/space.ts';
import type { Built, BuiltNote } from './builder.ts';

/** One part in figures, in mm and mm². */
interface PartFigures {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly areaMm2: number;
  readonly cutMm: number;
  /** Where its middle lies when all is put together, and which way its x and its y go. */
  readonly place: Place | null;
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
  const places = new Map(assembly.solids.map(({ partId, place }) => [partId, place]));
  const figures = parts.map(({ id, name, cut }): PartFigures => {
    const box = pathBounds(cut);
    const lines = flatten(cut);
    const areas = lines.map((line) => Math.abs(signedArea(line)));
    return {
      id,
      name,
      widthMm: boxWidth(box),
      heightMm: boxHeight(box),
      // The first is the outline, the others are holes in it.
      areaMm2: areas.reduce((sum, area, i) => (i === 0 ? area : sum - area), 0),
      cutMm: lines.reduce((sum, line) => sum + polylineLength(line), 0),
      place: places.get(id) ?? null,
    };
  });
  const { inside } = sizes;
  return {
    parts: figures,
    insideMm: inside,
    outsideMm: sizes.outside,
    holdsMm3: inside && inside[0] * inside[1] * inside[2],
    cutMm: figures.reduce((sum, { cutMm }) => sum + cutMm, 0),
    areaMm2: figures.reduce((sum, { areaMm2 }) => sum + areaMm2, 0),
    playMm,
    notes: notes ?? [],
    assembly: checkAssembly(assembly),
  };
}
