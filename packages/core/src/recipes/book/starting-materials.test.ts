import { expect, test } from '@jest/globals';
import { keyTroubles } from '../../colours/key-change.ts';
import { keyFromJson } from '../../colours/key-json.ts';
import { startingKeys } from '../../colours/starting-keys.ts';
import { materialFromJson } from './book-json.ts';
import { startingMaterials } from './starting-materials.ts';

test('materials to begin with are whole, each there once, and have no number that could burn anything', () => {
  const names = startingMaterials.map(({ name, thicknessMm }) => `${name} ${thicknessMm}`);
  expect(new Set(names).size).toBe(names.length);
  for (const material of startingMaterials) {
    const read = materialFromJson({ id: 'new', ...material });
    expect(read).toMatchObject(material);
    expect([read.recipes, read.stock]).toEqual([[], undefined]);
  }
  expect(startingMaterials.filter(({ forbidden }) => forbidden).map(({ name }) => name)).toEqual([
    'PVC and vinyl',
    'Polycarbonate',
  ]);
});

test('keys to begin with are whole, each under the one key’s id that a new shop has', () => {
  for (const { key } of startingKeys) {
    expect(keyFromJson(key)).toEqual(key);
    expect([key.id, keyTroubles(key)]).toEqual(['house', []]);
  }
});
