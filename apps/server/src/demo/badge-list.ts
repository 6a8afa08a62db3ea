import { type ColourKey, drawnPaint } from '@lambent/core/colours';
import type { Item, JobDocument, RowList, Shape, TextSetting } from '@lambent/core/document';
import { addItems, chooseDesign } from '@lambent/core/edits';
import { identity, translation } from '@lambent/core/geometry';
import { bedBox, type Machine } from '@lambent/core/machine';
import { packOfDesign } from '@lambent/core/packing';
import { prepareJob } from '@lambent/core/plan';
import type { Shop } from '@lambent/core/recipes';
import { burnsLayersOf, fillRows, gridOf, layRows } from '@lambent/core/rows';
import { setText, textShape, usualText } from '@lambent/core/text';
import { shippedTools } from '@lambent/fonts';

/*
 * The volunteers’ badges: a list of names, one design, and a holder with six places that is filled run by run.
 */

const people = [
  ['Ines', 'workshop'],
  ['Tobiah', 'workshop'],
  ['Wilhelmina', 'seed library'],
  ['Pavel', 'seed library'],
  ['Noor', 'seed library'],
  ...[1, 2, 3, 4].map((guest) => [`Guest ${guest}`, 'welcome']),
];
const list: RowList = {
  id: 'volunteers',
  name: 'Volunteers',
  columns: ['name', 'what'],
  rows: people.map((cells, i) => ({ id: `${i + 1}`, cells })),
  designId: null,
};
const badge = { width: 64, height: 30 };
/** How wide a text on a badge may be, in mm. */
const frameMm = 56;

/** The job with a badge for each volunteer, laid into the places of the holder again and again. */
export function badgeList(
  job: JobDocument,
  machine: Machine,
  shop: Shop,
  key: ColourKey,
  materialId: string,
): JobDocument {
  const { fonts } = shippedTools();
  const written = (name: string, words: string, height: number, below: number): Item => {
    const text: TextSetting = {
      ...usualText,
      words,
      height,
      bold: true,
      align: 'centre',
      width: frameMm,
      fit: 'smaller',
      leastHeight: 2,
    };
    return drawn(name, textShape(text, setText(text, fonts)), 'engrave', translation(badge.width / 2, below));
  };
  const drawn = (name: string, shape: Shape, operation: 'engrave' | 'guide', matrix = identity): Item => ({
    ...drawnPaint(key, operation),
    id: `demo.badge.${name}`,
    name,
    shape,
    matrix,
    fillRule: 'nonzero',
    groupId: null,
    hidden: false,
  });
  const design = [
    drawn('Badge', { kind: 'rectangle', x: 0, y: 0, ...badge, rx: 4, ry: 4 }, 'guide'),
    written('Name', '{name}', 7.5, 13.5),
    written('What', '{what}', 3.6, 23.5),
  ];
  const ids = new Set(design.map(({ id }) => id));
  const designed = chooseDesign(addItems(job, design), list, ids, 'demo.badge');
  const prepared = prepareJob(designed, shop);
  const pack = packOfDesign(prepared, {
    design: ids,
    earlier: new Set(),
    materialId,
    count: null,
    gapMm: 0,
    marginMm: 0,
    turning: 'none',
    further: { before: [], after: [] },
  });
  let count = 0;
  return layRows(
    designed,
    {
      list: { ...list, designId: 'demo.badge' },
      filled: fillRows(pack.pieces[0].items, list, { book: fonts, date: '', leastOf: () => 0 }).rows,
      pack,
      places: gridOf(pack),
      burnsDesign: burnsLayersOf(prepared, ids),
      nameFilling: (filling, { name }) => `${name} ${filling}`,
    },
    { bed: bedBox(machine), newId: () => `demo.row.${++count}`, nameRun: (sheet) => `Sheet ${sheet}` },
  );
}
