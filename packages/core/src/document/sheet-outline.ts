import {
  type Area,
  areaOf,
  growArea,
  pathOfArea,
  sizeOfArea,
  subtractAreas,
  uniteAreas,
} from '../geometry/areas/area.ts';
import { pathOfRings, ringsOfArea } from '../geometry/areas/rings.ts';
import { emptyPath, type Path } from '../geometry/paths/path.ts';
import { Mismatch, such, type ValueOf } from '../schema/schema.ts';
import { list } from '../schema/structures.ts';
import { numbers } from '../schema/values.ts';

/** More points than this, and an outline is no longer handy. */
const mostPoints = 50_000;

/** Closed lines, each the x and y of its points one after another, in mm; what lies in an odd number of them is meant. */
export const ringsSchema = such(list(numbers(), { each: (i) => `outline ${i + 1}` }), (rings) => {
  if (rings.some((ring) => ring.length < 6 || ring.length % 2 > 0))
    return new Mismatch('must have three points or more, x and y of each');
  return rings.reduce((sum, ring) => sum + ring.length / 2, 0) > mostPoints
    ? new Mismatch(`may have ${mostPoints} points`)
    : null;
});
export type Rings = ValueOf<typeof ringsSchema>;

/** A sheet in its own frame: mm from its own top left. */
export interface SheetShape {
  readonly width: number;
  readonly height: number;
  /** Its outline with its holes; a rectangle where nothing is said. */
  readonly outline?: Rings;
  /** Where nothing may burn. */
  readonly blocked?: Rings;
}

/** So far an outline that is kept may stray from the one that it was taken from, in mm. */
const strayMm = 0.005;

/** What a path encloses, by the even-odd rule, as rings to be kept: in whole thousandths of a mm. */
export function ringsOf(path: Path): Rings {
  return ringsOfArea(areaOf(path, 'evenodd'), strayMm).map((ring) =>
    Array.from(ring, (mm) => Math.round(mm * 1000) / 1000),
  );
}

/** A sheet's outline with its holes, in its own frame, to be filled by the even-odd rule. */
export function sheetOutline({ width, height, outline }: SheetShape): Path {
  return pathOfRings(outline ?? [[0, 0, width, 0, width, height, 0, height]]);
}

/** How large a sheet is by its outline, without its holes, in mm². */
export function outlineArea(sheet: SheetShape): number {
  return sizeOfArea(areaOf(sheetOutline(sheet), 'evenodd'));
}

/** What is worked out of a sheet, kept with the very rings that it was worked out from. */
const insets = new WeakMap<Rings, Map<number, Area>>();
const voids = new WeakMap<Rings, Area>();

/** What of an outline lies at least `inset` mm from its edges and holes; corners that point inwards are kept off all around. */
export function areaWithin(outline: Rings, inset: number): Area {
  const known = insets.get(outline) ?? new Map<number, Area>();
  insets.set(outline, known);
  const area = known.get(inset) ?? growArea(areaOf(pathOfRings(outline), 'evenodd'), -inset, 'round');
  known.set(inset, area);
  return area;
}

/** Where nothing can burn within a sheet: what is blocked, and the holes of its outline. In its own frame; null where there is nothing. */
export function sheetVoids({ outline, blocked }: SheetShape): Area | null {
  const parts = [
    ...(outline && outline.length > 1 ? [keptIn(outline, holesOf)] : []),
    ...(blocked && blocked.length > 0 ? [keptIn(blocked, (rings) => areaOf(pathOfRings(rings), 'nonzero'))] : []),
  ].filter(({ outlines }) => outlines.length > 0);
  return parts.length > 0 ? uniteAreas(parts) : null;
}

function keptIn(rings: Rings, workOut: (rings: Rings) => Area): Area {
  const area = voids.get(rings) ?? workOut(rings);
  voids.set(rings, area);
  return area;
}

function holesOf(outline: Rings): Area {
  const whole = uniteAreas(outline.map((ring) => areaOf(pathOfRings([ring]), 'nonzero')));
  return subtractAreas(whole, areaWithin(outline, 0));
}

/** The line along which a sheet's margin ends, in its own frame; empty where the margin leaves nothing. */
export function sheetWithin({ width, height, outline }: SheetShape, margin: number): Path {
  if (outline) return pathOfArea(areaWithin(outline, margin));
  if (width <= 2 * margin || height <= 2 * margin) return emptyPath;
  const [right, bottom] = [width - margin, height - margin];
  return pathOfRings([[margin, margin, right, margin, right, bottom, margin, bottom]]);
}

/** The same as `sheetVoids`, as a path; empty where there is nothing. */
export function voidsOutline(sheet: SheetShape): Path {
  const voids = sheetVoids(sheet);
  return voids ? pathOfArea(voids) : emptyPath;
}
