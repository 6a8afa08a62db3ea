import { type Item, pathOf } from '../document/item.ts';
import { type Sheet, sheetFrame, sheetUnder } from '../document/sheet.ts';
import { outlineArea, type Rings, ringsOf, sheetOutline, sheetVoids } from '../document/sheet-outline.ts';
import {
  type Area,
  areaOf,
  boxArea,
  growArea,
  linesOfArea,
  strokeArea,
  subtractAreas,
  uniteAreas,
} from '../geometry/areas/area.ts';
import { pathOfRings, ringsOfArea } from '../geometry/areas/rings.ts';
import { growBox } from '../geometry/paths/box.ts';
import { invert, translation } from '../geometry/paths/matrix.ts';
import { pathBounds, transformPath } from '../geometry/paths/path.ts';
import { pathOfSubpaths, subpathsOf } from '../geometry/paths/segments.ts';
import { nestOutlines } from '../geometry/questions/nesting.ts';
import { isBurnt, separates } from '../operations/operations.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { drawnPieces } from './pieces.ts';

/** What is left of a sheet, as one: its outline with its holes from its own top left, and its size, in mm. */
export interface Offcut {
  readonly width: number;
  readonly height: number;
  readonly outline: Rings;
}

/** What is less wide or high than this, in mm, is no use. */
const leastSide = 20;
/** How far beyond the kerf what is left begins, in mm: edges are charred. */
const charredMm = 0.1;
/** How far the outline may stray from that, in mm. */
const strayMm = 0.02;

/**
 * What is left of a sheet when all runs of the job have burnt on it: each part that hangs together, the largest first. What a
 * cut parts is taken out whole, with its holes; of what is only marked, its bounds are taken out.
 *
 * @param sheet one of the job's, as it is drawn
 */
export function offcutsLeft({ job, meaning, layers, parked }: PreparedJob, sheet: Sheet): Offcut[] {
  const toSheet = invert(sheetFrame(sheet));
  if (!toSheet) return [];
  const edges = new Set<Item>();
  const burnt = new Set<Item>();
  let kerfMm = 0;
  for (const { id, operation } of meaning.layers) {
    if (!isBurnt(operation)) continue;
    const runs = job.runs.filter(({ off }) => !off.includes(id));
    for (const { item } of meaning.placed.get(id) ?? []) {
      if (parked.has(item.id) || !runs.some(({ only }) => only?.includes(item.id) ?? true)) continue;
      if (sheetUnder(job.sheets, item) !== sheet) continue;
      burnt.add(item);
      if (separates(operation)) edges.add(item);
    }
    for (const { layer, applied } of layers)
      if (layer.id === id) kerfMm = Math.max(kerfMm, applied.settings?.kerfMm ?? 0);
  }
  const { pieces, loose } = drawnPieces([...burnt], edges);
  const reach = kerfMm / 2 + charredMm;
  const gone = [
    // Each outline by itself: a hole goes with its piece, whichever way round it is drawn.
    ...pieces.flatMap(({ outline }) =>
      [...subpathsOf(transformPath(outline, toSheet))].map((ring) =>
        growArea(areaOf(pathOfSubpaths([ring]), 'nonzero'), reach),
      ),
    ),
    ...loose.map((item) =>
      edges.has(item)
        ? strokeArea(transformPath(pathOf(item), toSheet), 2 * reach)
        : boxArea(growBox(pathBounds(transformPath(pathOf(item), toSheet)), reach)),
    ),
  ];
  const voids = sheetVoids(sheet);
  const taken = uniteAreas(voids ? [...gone, voids] : gone);
  return partsOf(subtractAreas(areaOf(sheetOutline(sheet), 'evenodd'), taken));
}

/** The parts of an area that hang together and are of use, the largest first, each from its own top left. */
function partsOf(area: Area): Offcut[] {
  const { depths, parents } = nestOutlines(linesOfArea(area));
  const rings = ringsOfArea(area, strayMm);
  return [...depths]
    .flatMap((depth, i) =>
      depth % 2 === 0 ? [rings.filter((_, k) => k === i || (parents[k] === i && depths[k] === depth + 1))] : [],
    )
    .flatMap((part) => {
      const path = pathOfRings(part);
      const { minX, minY, ...most } = pathBounds(path);
      const [width, height] = [most.maxX - minX, most.maxY - minY];
      if (width < leastSide || height < leastSide) return [];
      return [{ width, height, outline: ringsOf(transformPath(path, translation(-minX, -minY))) }];
    })
    .toSorted((a, b) => outlineArea(b) - outlineArea(a));
}
