import { boundsOf, boxesOfEach, type Item } from '../document/item.ts';
import type { Landing } from '../document/run.ts';
import { type Sheet, sheetBox, sheetHolds, sheetSafeBox, sheetUnder } from '../document/sheet.ts';
import { type Box, boxAt, boxContains, boxesMeet, growBox, shiftInto } from '../geometry/paths/box.ts';
import { bedBox } from '../machine/machine.ts';
import type { Mend } from '../mends/mend.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { burntItems, type Check, countOf, finding, ifAny, withMends } from './finding.ts';
import { movedInto } from './offers.ts';

/** Bounds may touch an edge; what rounding adds is not over it. In mm. */
const slack = 0.005;

/** The items that are drawn off the bed, wholly or in part, where the run burns them. */
export function itemsOffBed(prepared: PreparedJob): Item[] {
  const bed = bedBox(prepared.machine);
  const items = burntItems(prepared);
  const boxes = boxesOfEach(items);
  return items.filter((_, i) => !boxContains(bed, boxAt(boxes, i), slack));
}

/** What lies off the bed, or nearer to its edge than the machine's margin. */
export const checkBed: Check = (prepared) => {
  const { machine } = prepared;
  const bed = bedBox(machine);
  const safe = growBox(bed, -machine.margin);
  const { outside, between } = sortByPlace(burntItems(prepared), bed, safe);
  const size = `${machine.bedWidth} × ${machine.bedHeight} mm bed of ${machine.name}`;
  return [
    ...ifAny(outside, () =>
      withMends(
        finding(
          'off-bed',
          'blocks',
          `${countOf(outside.length, 'item lies', 'items lie')} off the ${size}. Move ${outside.length === 1 ? 'it' : 'them'} onto the bed, scale down, or choose a larger machine.`,
          outside,
        ),
        movedInto(prepared, outside, safe, () => 'Move onto the bed'),
        parkedBesides(prepared, outside),
      ),
    ),
    ...ifAny(between, () =>
      withMends(
        finding(
          'into-margin',
          'warns',
          `${countOf(between.length, 'item comes', 'items come')} within ${machine.margin} mm of the edge of the ${size}.`,
          between,
        ),
        movedInto(prepared, between, safe, () => 'Move out of the margin'),
      ),
    ),
  ];
};

/** Parks what lies wholly beside the bed; null where nothing does. */
function parkedBesides({ machine, run }: PreparedJob, items: readonly Item[]): Mend | null {
  // What lands elsewhere, or is mirrored, lies elsewhere than it is drawn.
  if (run.landing.kind !== 'as-drawn' || run.mirrored) return null;
  const beside = items.filter((item) => !boxesMeet(bedBox(machine), boundsOf(item)));
  if (beside.length === 0) return null;
  const some = beside.length === 1 ? 'one' : String(beside.length);
  const words = beside.length === items.length ? 'Park beside the bed' : `Park the ${some} beside the bed`;
  const name = beside.length === 1 ? 'park 1 item' : `park ${beside.length} items`;
  return { words, name, isSafe: false, step: { kind: 'park', itemIds: beside.map(({ id }) => id) } };
}

/** Where a run lands so, it is known where its sheets lie. */
const sheetLandings: ReadonlySet<Landing['kind']> = new Set(['as-drawn', 'stock', 'sheet']);

/** What lies off every sheet, or nearer to its sheet's edge than the sheet's margin. */
export const checkSheet: Check = (prepared) => {
  const { sheets } = prepared;
  const items = burntItems(prepared);
  const bed = bedBox(prepared.machine);
  // Where a run lands elsewhere than it was drawn or its sheet lies, the stock lies there too.
  const { kind } = prepared.run.landing;
  if (items.length === 0 || sheets.length === 0 || !sheetLandings.has(kind)) return [];
  const off: Item[] = [];
  const close: Item[] = [];
  // Of a single sheet that is not turned, a look at its box tells for most.
  const safe = sheets.length === 1 && !sheets[0].angle ? sheetSafeBox(sheets[0]) : null;
  const bounds = boxesOfEach(items);
  for (let i = 0; i < items.length; i++) {
    const [item, box] = [items[i], boxAt(bounds, i)];
    // What lies off the bed is told of that.
    if ((safe && boxContains(safe, box, slack)) || !boxContains(bed, box, slack)) continue;
    const home = sheetUnder(sheets, item);
    if (!home || !sheetHolds(home, item, 0, slack)) off.push(item);
    else if (!sheetHolds(home, item, home.margin, slack)) close.push(item);
  }
  const boxes = sheets.map(sheetBox);
  const across = off.filter((item) => boxes.some((box) => boxesMeet(box, boundsOf(item)))).length;
  const where = across === off.length ? 'over the edge of' : 'off';
  return [
    ...ifAny(off, () =>
      withMends(
        finding(
          'off-sheet',
          'warns',
          `${countOf(off.length, 'item lies', 'items lie')} ${where} the sheet and would burn the bed below. Move ${off.length === 1 ? 'it' : 'them'}, or give the sheet its true size and place.`,
          off,
        ),
        ontoSheet(prepared, off, 'Move onto the sheet'),
      ),
    ),
    ...ifAny(close, () =>
      withMends(
        finding(
          'into-margin',
          'warns',
          `${countOf(close.length, 'item comes', 'items come')} within ${sheets[0].margin} mm of the sheet’s edge, where stock is often bent or short.`,
          close,
        ),
        ontoSheet(prepared, close, 'Move away from the edge'),
      ),
    ),
  ];
};

/** Moves items within the margin of the job's sheet; null where there are several, or it is turned. */
function ontoSheet(prepared: PreparedJob, items: readonly Item[], words: string): Mend | null {
  const [sheet, ...others] = prepared.sheets;
  if (!sheet || others.length > 0 || sheet.angle) return null;
  const mend = movedInto(prepared, items, sheetSafeBox(sheet), () => words);
  return mend && { ...mend, isSafe: false };
}

/** Sheets that reach over the bed's edge: what of them lies beside it cannot be reached. */
export const checkSheetPlaces: Check = ({ sheets, run, machine, layers }) => {
  const bed = bedBox(machine);
  const nameOf = (sheet: Sheet) => layers.find(({ material }) => material?.id === sheet.materialId)?.material?.name;
  return sheets.flatMap((sheet) => {
    const box = sheetBox(sheet);
    if (boxContains(bed, box, slack)) return [];
    const over = Math.max(bed.minX - box.minX, bed.minY - box.minY, box.maxX - bed.maxX, box.maxY - bed.maxY);
    const name = nameOf(sheet);
    const what = name ? `The sheet of ${name}` : 'A sheet';
    const message = `${what} reaches ${over.toFixed(1)} mm over the edge of the ${machine.bedWidth} × ${machine.bedHeight} mm bed of ${machine.name}. Move it, give it its true size, or choose a larger machine.`;
    return [
      withMends(
        finding('sheet-off-bed', 'warns', message, [], null, [box]),
        run.landing.kind === 'sheet' ? null : sheetOntoBed(sheet, box, bed),
      ),
    ];
  });
};

/** Moves a sheet onto the bed; null where the bed has no room for it. */
function sheetOntoBed({ id }: Sheet, box: Box, bed: Box): Mend | null {
  const shift = shiftInto(box, bed);
  if (!shift) return null;
  return {
    words: 'Move the sheet onto the bed',
    name: 'move the sheet onto the bed',
    isSafe: false,
    step: { kind: 'move sheet', sheetId: id, ...shift },
  };
}

function sortByPlace(items: readonly Item[], whole: Box, safe: Box): { outside: Item[]; between: Item[] } {
  const outside: Item[] = [];
  const between: Item[] = [];
  const boxes = boxesOfEach(items);
  for (let i = 0; i < items.length; i++) {
    const box = boxAt(boxes, i);
    if (!boxContains(whole, box, slack)) outside.push(items[i]);
    else if (!boxContains(safe, box, slack)) between.push(items[i]);
  }
  return { outside, between };
}
