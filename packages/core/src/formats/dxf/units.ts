import type { FoundSize, Notes, SizeChoice } from '../reading.ts';
import { finite, type RawSections } from './groups.ts';

/** A unit of the file in mm, and how that was found. */
export interface Unit {
  readonly mm: number;
  readonly found: Omit<FoundSize, 'pageWidthMm' | 'pageHeightMm' | 'mmPerUnit'>;
}

/** `$INSUNITS` in mm. */
const insertUnits: Record<number, { mm: number; name: string }> = {
  1: { mm: 25.4, name: 'inches' },
  2: { mm: 304.8, name: 'feet' },
  4: { mm: 1, name: 'mm' },
  5: { mm: 10, name: 'cm' },
  6: { mm: 1000, name: 'metres' },
  8: { mm: 25.4e-6, name: 'microinches' },
  9: { mm: 0.0254, name: 'thousandths of an inch' },
  10: { mm: 914.4, name: 'yards' },
  13: { mm: 0.001, name: 'micrometres' },
  14: { mm: 100, name: 'decimetres' },
};

const unitNames: readonly (readonly [label: string, mm: number])[] = [
  ['1 unit = 1 mm', 1],
  ['1 unit = 1 inch', 25.4],
  ['1 unit = 1 cm', 10],
  ['1 unit = 1 m', 1000],
  ['1 unit = 1 foot', 304.8],
];

/** What a unit of the file is, by its header; mm, and said, where it does not tell. */
export function unitOf(header: RawSections['header'], notes: Notes): Unit {
  const variable = (name: string) => {
    const value = header.get(name)?.[0]?.[1];
    return value === undefined ? null : finite(value);
  };
  const others = (mm: number): SizeChoice[] => unitNames.map(([label, other]) => ({ label, factor: other / mm }));
  const known = insertUnits[variable('$INSUNITS') ?? 0];
  if (known)
    return { mm: known.mm, found: { from: `the file’s unit, ${known.name}`, sure: true, others: others(known.mm) } };
  const measurement = variable('$MEASUREMENT');
  if (measurement !== null) {
    const mm = measurement === 1 ? 1 : 25.4;
    const from = `the file’s system of units (${measurement === 1 ? 'metric, taken as mm' : 'imperial, taken as inches'})`;
    return { mm, found: { from, sure: true, others: others(mm) } };
  }
  notes.add('changed', 'no-physical-size', 'the file does not say what its unit is; mm are taken');
  return { mm: 1, found: { from: 'no unit in the file; mm taken', sure: false, others: others(1) } };
}
