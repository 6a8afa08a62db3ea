import { operationNames } from '../colours/operation.ts';
import type { Machine, Material, Recipe } from './shop.ts';

const units: Readonly<Record<string, string>> = {
  powerPercent: '%',
  cornerPowerPercent: '%',
  speedMmPerS: 'mm/s',
  lineSpacingMm: 'mm',
  kerfMm: 'mm',
  focusMm: 'mm',
  focusStepMm: 'mm',
  runUpMm: 'mm',
  scanAngle: '°',
  pierceS: 's',
  cornerWaitS: 's',
  thicknessMm: 'mm',
  measuredMm: 'mm',
  sheetWidth: 'mm',
  sheetHeight: 'mm',
};

const names: Readonly<Record<string, string>> = {
  powerPercent: 'power',
  cornerPowerPercent: 'power at corners',
  speedMmPerS: 'speed',
  lineSpacingMm: 'line spacing',
  kerfMm: 'kerf',
  kerfFrom: 'where the kerf is from',
  focusMm: 'focus',
  focusStepMm: 'focus step',
  runUpMm: 'run-up',
  scanAngle: 'scan angle',
  bothWays: 'lines there and back',
  pierceS: 'wait at starts',
  cornerWaitS: 'wait at corners',
  machineId: 'machine',
  lensId: 'lens',
  thicknessMm: 'thickness',
  measuredMm: 'measured thickness',
  sheetWidth: 'sheet width',
  sheetHeight: 'sheet height',
  forbidden: 'why it is forbidden',
  proof: 'known from',
  pictureId: 'picture',
};

/** How a recipe is called within its material: `Cut, Wren, masked`. */
export function recipeTitle(recipe: Recipe, machines: readonly Pick<Machine, 'id' | 'name'>[]): string {
  const machine = machines.find(({ id }) => id === recipe.machineId)?.name ?? recipe.machineId;
  return [operationNames[recipe.operation], machine, recipe.lensId, recipe.variant].filter(Boolean).join(', ');
}

/**
 * What was changed between two states of a recipe or a material, each value with what it was before; their recipes and
 * how often they were changed apart. Empty where nothing was.
 */
export function changesInWords<T extends Recipe | Material>(before: T, after: T): string {
  const fields = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (field) => !['id', 'version', 'recipes'].includes(field),
  ) as (keyof T & string)[];
  return fields
    .filter((field) => inOrder(before[field] ?? null) !== inOrder(after[field] ?? null))
    .map((field) => {
      if (field === 'archived') return after[field] ? 'put away' : 'taken up again';
      if (field === 'pictureId') return after[field] ? 'another picture' : 'no picture any more';
      if (field === 'stock') return `stock ${inStock(before)} → ${inStock(after)}`;
      const [was, is] = [before[field], after[field]].map((value) => said(value, units[field]));
      return `${names[field] ?? field} ${was} → ${is}`;
    })
    .join(', ');
}

/** How many sheets there are of which size: `4 of 600 × 400 mm`. */
function inStock(entry: Recipe | Material): string {
  const sheets = 'stock' in entry ? (entry.stock ?? []) : [];
  const words = sheets.map(
    ({ count, width, height, price, offcut }) =>
      `${count} of ${width} × ${height} mm${offcut ? ' (offcut)' : ''}${price === null ? '' : ` at ${price}`}`,
  );
  return words.join('; ') || 'none';
}

/** As text that does not depend on the order in which fields came. */
function inOrder(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  );
}

function said(value: unknown, unit: string | undefined): string {
  if (value === undefined || value === null || value === '') return 'none';
  if (typeof value === 'object')
    return Object.values(value)
      .map((part) => said(part, undefined))
      .join(' ');
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return unit ? `${value} ${unit}` : String(value);
}
