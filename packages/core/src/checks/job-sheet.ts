import { boundsOfAll, pathOf } from '../document/item.ts';
import { landingWords, type Run } from '../document/run.ts';
import { type Sheet, sheetCorners, sheetFrame } from '../document/sheet.ts';
import { sheetOutline, voidsOutline } from '../document/sheet-outline.ts';
import type { Paper, SheetColumn, SheetPicture, SheetTable } from '../formats/paper.ts';
import { boxHeight, boxWidth, isEmpty } from '../geometry/paths/box.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { appendPath, type Path, PathBuilder, transformPath } from '../geometry/paths/path.ts';
import { machineZero, toMachine } from '../machine/frame.ts';
import { beamOf } from '../machine/machine.ts';
import { fillsAreas, followsLines, isBurnt, operationOf } from '../operations/operations.ts';
import { engravedFills, engravedPath } from '../plan/fill.ts';
import { type BurnPlan, type PlanStep, stepTitle } from '../plan/plan.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import type { Price } from '../plan/price.ts';
import { thicknessOf } from '../recipes/book/material.ts';
import { formatMoney, type Pricing } from '../recipes/book/pricing.ts';
import type { Shop } from '../recipes/book/shop.ts';
import { settingOf, settingsOf } from '../settings/settings.ts';
import { formatClock } from '../units/duration.ts';
import { formatLength } from '../units/length.ts';
import { beforeSend, noteText } from './before-send.ts';
import { catalogue } from './catalogue.ts';
import { burntItems, type Finding } from './finding.ts';

/** What a job sheet says besides the plan. */
export interface SheetWish {
  readonly title: string;
  /** When it is made, in words. */
  readonly madeOn: string;
  /** Where the job opens, for its code; null where it has no address. */
  readonly address: string | null;
  readonly price: Price;
  readonly pricing: Pricing;
}

/** What goes to the machine on paper: everything whoever burns the run has to know. */
export function jobSheetOf(
  { title, madeOn, address, price, pricing }: SheetWish,
  prepared: PreparedJob,
  plan: BurnPlan,
  findings: readonly Finding[],
  { materials }: Pick<Shop, 'materials'>,
): Paper {
  const { job, machine, key, run } = prepared;
  const before = beforeSend(prepared, findings);
  const open = findings.filter(({ code, accepted }) => code !== 'decided' && accepted === undefined);
  return {
    title,
    kind: 'Job sheet',
    facts: [
      ...(job.member === '' ? [] : [{ name: 'For', value: job.member }]),
      {
        name: 'Machine',
        value: `${machine.name}, ${beamOf(machine)}, bed ${machine.bedWidth} × ${machine.bedHeight} mm`,
      },
      { name: 'Run', value: runInWords(run, job.runs) },
      { name: 'Colour key', value: key.name },
      { name: 'Time', value: `${formatClock(plan.timeS)} · ${(plan.travelMm / 1000).toFixed(2)} m moved unlit` },
      { name: 'Made', value: madeOn },
      ...(address === null ? [] : [{ name: 'Opens at', value: address }]),
    ],
    code: address,
    picture: pictureOf(prepared, materials),
    tables: [placesOf(prepared, materials), stepsOf(plan), priceTable(price, pricing)],
    lists: [
      { title: 'Notes', lines: [...before.notes.map(noteText), ...(before.parked ? [before.parked] : [])] },
      { title: 'Found by the checks', lines: open.map(({ code, message }) => `${catalogue[code].title}: ${message}`) },
      {
        title: 'Accepted',
        lines: before.accepted.map(({ message, accepted }) => `${message} Accepted: ${accepted}`),
      },
      { title: 'Decided where the file did not say', lines: before.undecided.map(({ message }) => message) },
    ],
  };
}

function runInWords(run: Run, all: readonly Run[]): string {
  const place = all.length === 1 ? run.name : `${run.name}, ${all.indexOf(run) + 1} of ${all.length}`;
  const landing = landingWords[run.landing.kind];
  const stock = { fresh: 'fresh stock', 'in place': 'stock left in place', 'turned over': 'stock turned over' }[
    run.stock
  ];
  return [place, landing, stock, ...(run.mirrored ? ['mirrored'] : [])].join(' · ');
}

function nameOfSheet({ materialId, thicknessMm }: Sheet, materials: Shop['materials']): string {
  const material = materials.find(({ id }) => id === materialId);
  if (!material) return 'A material that the shop has no more';
  return `${material.name} ${thicknessMm ?? thicknessOf(material)} mm`;
}

function pictureOf(prepared: PreparedJob, materials: Shop['materials']): SheetPicture {
  const { sheets, machine } = prepared;
  return {
    bedWidth: machine.bedWidth,
    bedHeight: machine.bedHeight,
    zero: machineZero(machine),
    sheets: sheets.map((sheet) => ({ name: nameOfSheet(sheet, materials), corners: sheetCorners(sheet) })),
    layers: [...outlinesOf(sheets), ...burntLayers(prepared)],
  };
}

/** The outlines and blocked places of sheets that are no plain rectangles. */
function outlinesOf(sheets: readonly Sheet[]): SheetPicture['layers'] {
  return sheets.flatMap((sheet) => {
    const frame = sheetFrame(sheet);
    const outline = sheet.outline ? [{ colour: '#B0A890', path: sheetOutline(sheet), isFilled: false }] : [];
    const blocked = voidsOutline(sheet);
    const voids = blocked.verbs.length > 0 ? [{ colour: '#D8D2C4', path: blocked, isFilled: true }] : [];
    return [...voids, ...outline].map((layer) => ({ ...layer, path: transformPath(layer.path, frame) }));
  });
}

function burntLayers(prepared: PreparedJob): SheetPicture['layers'] {
  return prepared.layers.flatMap((layer) => {
    const { operation } = layer.layer;
    if (!layer.on || !isBurnt(operation)) return [];
    const { colour } = operationOf(operation);
    const lines = layer.placed.flatMap(({ item }) =>
      // Of a picture that burns, the sheet shows where it lies.
      followsLines(operation) || item.shape.kind === 'picture' ? [pathOf(item)] : [],
    );
    const fills = fillsAreas(operation) ? engravedFills(prepared, layer).map(engravedPath) : [];
    return [
      ...fills.map((path) => ({ colour, path, isFilled: true })),
      ...(lines.length > 0 ? [{ colour, path: together(lines), isFilled: false }] : []),
    ];
  });
}

function together(paths: readonly Path[]): Path {
  const builder = new PathBuilder();
  for (const path of paths) appendPath(builder, path, true);
  return builder.build();
}

const figures = (name: string, widthMm: number): SheetColumn => ({ name, widthMm, isFigures: true });
const words = (name: string, widthMm = 0): SheetColumn => ({ name, widthMm, isFigures: false });

/** Sheets and what burns, with their sizes and the corners nearest to the machine's zero, as it counts. */
function placesOf(prepared: PreparedJob, materials: Shop['materials']): SheetTable {
  const { job, machine } = prepared;
  const said = (mm: number) => formatLength(mm, job.unit);
  const corner = (points: readonly Point[]) => {
    const counted = points.map(({ x, y }) => toMachine(machine, x, y));
    return [said(Math.min(...counted.map(({ x }) => x))), said(Math.min(...counted.map(({ y }) => y)))];
  };
  const sheets = prepared.sheets.map((sheet) => [
    nameOfSheet(sheet, materials),
    said(sheet.width),
    said(sheet.height),
    ...corner(sheetCorners(sheet)),
    sheet.angle ? `${sheet.angle}°` : '',
  ]);
  const bounds = boundsOfAll(burntItems(prepared));
  const burnt = isEmpty(bounds)
    ? []
    : [
        [
          'What burns',
          said(boxWidth(bounds)),
          said(boxHeight(bounds)),
          ...corner([
            { x: bounds.minX, y: bounds.minY },
            { x: bounds.maxX, y: bounds.maxY },
          ]),
          '',
        ],
      ];
  return {
    title: 'Sheets and places, from the zero corner',
    columns: [
      words('Sheet'),
      figures('Width', 25),
      figures('Height', 25),
      figures('X', 25),
      figures('Y', 25),
      figures('Turned', 16),
    ],
    rows: [...sheets, ...burnt],
    total: null,
  };
}

function stepsOf(plan: BurnPlan): SheetTable {
  return {
    title: 'Steps, in this order',
    columns: [words('Step', 45), words('Settings'), figures('Time', 18)],
    rows: [
      ...plan.steps.map((step, i) => [`${i + 1}  ${stepTitle(step)}`, settingsInWords(step), formatClock(step.timeS)]),
      ['', 'Back to rest', formatClock(plan.backS)],
    ],
    total: ['', 'In all', formatClock(plan.timeS)],
  };
}

/** What a step burns with: what every recipe says, and what else is not as usual. */
function settingsInWords({ operation, settings }: PlanStep): string {
  return settingsOf(operation)
    .flatMap((name) => {
      const setting = settingOf(name);
      const value = settings[name];
      const goesWithout = 'usual' in setting && value === setting.usual;
      if (goesWithout && !(setting.isInEveryRecipe && name !== 'passes')) return [];
      const said = typeof value === 'boolean' ? (value ? 'both ways' : 'one way') : `${value} ${setting.unit}`.trim();
      return [`${setting.words} ${said}`];
    })
    .join(' · ');
}

function priceTable(price: Price, pricing: Pricing): SheetTable {
  return {
    title: 'Price',
    columns: [words('For'), figures('Amount', 30)],
    rows: [
      ...price.parts.map(({ what, amount }) => [what, formatMoney(amount, pricing)]),
      ...price.unpriced.map((what) => [what, 'no price']),
    ],
    total: ['In all', formatMoney(price.total, pricing)],
  };
}
