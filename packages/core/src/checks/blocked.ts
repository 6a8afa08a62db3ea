import { type Item, pathOf } from '../document/item.ts';
import { type Sheet, sheetFrame } from '../document/sheet.ts';
import { sheetVoids } from '../document/sheet-outline.ts';
import {
  type Area,
  areaOf,
  fillWithin,
  intersectAreas,
  lineWithin,
  pathOfArea,
  sizeOfArea,
  uniteAreas,
} from '../geometry/areas/area.ts';
import { boxesMeet } from '../geometry/paths/box.ts';
import { pathBounds, transformPath } from '../geometry/paths/path.ts';
import { fillsAreas, separates } from '../operations/operations.ts';
import { drawnPieces } from '../packing/pieces.ts';
import { type Check, countOf, finding } from './finding.ts';

/** What lies on a blocked place of a sheet or over a hole of it: pieces with all that they enclose, and what is marked. */
export const checkBlocked: Check = ({ sheets, layers }) => {
  const voids = voidsOf(sheets);
  if (!voids) return [];
  const edges = new Set<Item>();
  const filled = new Set<Item>();
  const burnt = new Set<Item>();
  for (const { layer, placed, burns } of layers) {
    if (!burns) continue;
    for (const { item } of placed) {
      burnt.add(item);
      if (separates(layer.operation)) edges.add(item);
      if (fillsAreas(layer.operation)) filled.add(item);
    }
  }
  const { pieces, loose } = drawnPieces([...burnt], edges);
  const items = [
    ...pieces.flatMap((piece) => {
      if (!boxesMeet(pathBounds(piece.outline), voids.bounds)) return [];
      const over = intersectAreas(areaOf(piece.outline, 'evenodd'), voids);
      return sizeOfArea(over) > leastMm2 ? piece.items : [];
    }),
    ...loose.filter((item) => isOver(item, voids, filled.has(item))),
  ];
  if (items.length === 0) return [];
  const words = `${countOf(items.length, 'item lies', 'items lie')} on a blocked place of the sheet, or over a hole in it. Move ${items.length === 1 ? 'it' : 'them'}, pack again, or change what is blocked.`;
  return [finding('on-blocked', 'warns', words, items)];
};

/** Less than this is the rounding of an edge along an edge, in mm². */
const leastMm2 = 0.01;

function isOver(item: Item, voids: Area, isFilled: boolean): boolean {
  const path = pathOf(item);
  const bounds = pathBounds(path);
  if (lineWithin(path, bounds, voids).left !== 'nothing') return true;
  return isFilled && fillWithin(path, bounds, item.fillRule, voids).left !== 'nothing';
}

/** Where nothing can burn on any of the sheets, on the bed; null where there is no such place. */
function voidsOf(sheets: readonly Sheet[]): Area | null {
  const areas = sheets.flatMap((sheet) => {
    const voids = sheetVoids(sheet);
    return voids ? [areaOf(transformPath(pathOfArea(voids), sheetFrame(sheet)), 'nonzero')] : [];
  });
  return areas.length > 0 ? uniteAreas(areas) : null;
}
