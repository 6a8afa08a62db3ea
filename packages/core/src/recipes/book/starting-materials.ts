import type { Material } from './material.ts';

/** A material as one begins with it: what it is, and nothing that could burn it. */
export type StartingMaterial = Pick<
  Material,
  'name' | 'family' | 'thicknessMm' | 'tone' | 'sheetWidth' | 'sheetHeight' | 'forbidden' | 'isClear' | 'turnsLighter'
>;

const kind = (name: string, family: string, tone: string, thicknesses: readonly number[], more = {}) =>
  thicknesses.map(
    (thicknessMm): StartingMaterial => ({
      name,
      family,
      thicknessMm,
      tone,
      sheetWidth: 600,
      sheetHeight: 400,
      forbidden: null,
      ...more,
    }),
  );

/** What most shops burn on, by name and thickness in mm, and what nobody should. */
export const startingMaterials: readonly StartingMaterial[] = [
  ...kind('Birch plywood', 'Plywood', '#EAD9B4', [3, 4, 6]),
  ...kind('Poplar plywood', 'Plywood', '#F0E3C3', [3, 4, 6]),
  ...kind('Fibreboard (MDF)', 'Board', '#C9A877', [3, 6]),
  ...kind('Cast acrylic, clear', 'Acrylic', '#E3EEF0', [3, 5], { isClear: true }),
  ...kind('Cast acrylic, coloured', 'Acrylic', '#D9A441', [3, 5]),
  ...kind('Grey board', 'Paper', '#CFCBC2', [2]),
  ...kind('Card', 'Paper', '#F3EEE2', [0.5]),
  ...kind('Corrugated cardboard', 'Paper', '#CFAF80', [4]),
  ...kind('Vegetable-tanned leather', 'Leather', '#C99A6B', [2]),
  ...kind('Cork', 'Cork', '#C79E6E', [3]),
  ...kind('Wool felt', 'Textile', '#8C8F8A', [3]),
  ...kind('Slate', 'Stone', '#4A4F52', [6], { turnsLighter: true }),
  ...kind('Engraving laminate', 'Laminate', '#E8E6DF', [1.6]),
  ...kind('PVC and vinyl', 'Never', '#C9C9D6', [1], {
    forbidden: 'it gives off chlorine, which is poisonous and eats the machine.',
  }),
  ...kind('Polycarbonate', 'Never', '#DDE3E6', [3], { forbidden: 'it chars, burns, and gives off poisonous smoke.' }),
];
