import {
  type Area,
  boxArea,
  intersectAreas,
  sizeOfArea,
  subtractAreas,
  uniteAreas,
} from '../../geometry/areas/area.ts';
import type { Box } from '../../geometry/paths/box.ts';

/** What is smaller is rounding, in mm². */
const roundingMm2 = 0.01;

/** Whether boxes are all stock. */
export const isAllStock = (stock: Area, boxes: readonly Box[]): boolean =>
  sizeOfArea(subtractAreas(uniteAreas(boxes.map(boxArea)), stock)) < roundingMm2;

/** Whether boxes have stock in them. */
export const hasStock = (stock: Area, boxes: readonly Box[]): boolean =>
  sizeOfArea(intersectAreas(stock, uniteAreas(boxes.map(boxArea)))) > roundingMm2;
