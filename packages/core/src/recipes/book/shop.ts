import type { ColourKey } from '../../colours/key.ts';
import type { Sheet } from '../../document/sheet.ts';
import { areaWithin, type Rings, ringsOf } from '../../document/sheet-outline.ts';
import { boxArea, intersectAreas, pathOfArea } from '../../geometry/areas/area.ts';
import { type Box, boxContains, boxOf } from '../../geometry/paths/box.ts';
import type { Machine } from '../../machine/machine.ts';
import type { Material } from './material.ts';
import type { Pricing } from './pricing.ts';

/** What a shop has: the default machine, key and material are the first of each. */
export interface Shop {
  readonly name: string;
  readonly machines: readonly Machine[];
  readonly keys: readonly ColourKey[];
  readonly materials: readonly Material[];
  /** What it charges; nothing where nothing is said. */
  readonly pricing?: Pricing;
}

/** So far from its edge nothing is drawn on a sheet as it is laid, in mm. */
export const sheetMarginMm = 3;

/**
 * A sheet of a material as it comes, laid at the machine's zero corner and cut to what the bed holds: the one in stock
 * that is named, else the first whole one that there is, else one of the usual size.
 */
export function sheetAsStocked(id: string, material: Material, machine: Machine, stockId?: string): Sheet {
  const known = material.stock ?? [];
  const taken =
    known.find((entry) => entry.id === stockId) ?? known.find(({ count, offcut }) => count > 0 && !offcut) ?? null;
  const width = Math.min(taken?.width ?? material.sheetWidth, machine.bedWidth);
  const height = Math.min(taken?.height ?? material.sheetHeight, machine.bedHeight);
  const outline = taken?.outline && cutTo(taken.outline, boxOf(0, 0, width, height));
  const y = machine.origin === 'bottom-left' ? machine.bedHeight - height : 0;
  const centred = machine.origin === 'centre';
  return {
    id,
    materialId: material.id,
    x: centred ? (machine.bedWidth - width) / 2 : 0,
    y: centred ? (machine.bedHeight - height) / 2 : y,
    width,
    height,
    margin: sheetMarginMm,
    ...(taken ? { stockId: taken.id } : {}),
    ...(outline ? { outline } : {}),
  };
}

/** What of an outline lies in a box; itself where all of it does. */
function cutTo(outline: Rings, room: Box): Rings {
  const area = areaWithin(outline, 0);
  return boxContains(room, area.bounds) ? outline : ringsOf(pathOfArea(intersectAreas(area, boxArea(room))));
}
