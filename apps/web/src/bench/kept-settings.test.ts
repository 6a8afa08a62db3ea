import { expect, test } from '@jest/globals';

const kept = new Map<string, string>();
Object.assign(globalThis, {
  window: globalThis,
  localStorage: {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  },
});
const { keepSettings, keptSettings } = await import('./kept-settings.ts');

const usual = { by: 2, join: 'round', both: false, size: { wide: 3, high: 4 }, loop: null as { hole: number } | null };

test('settings begin as usual, and go on as they were kept', () => {
  expect(keptSettings('offset', usual)).toEqual(usual);
  keepSettings('offset', { by: 5 });
  keepSettings('offset', { both: true, size: { wide: 9, high: 4 } });
  expect(keptSettings('offset', usual)).toEqual({ ...usual, by: 5, both: true, size: { wide: 9, high: 4 } });
  expect(keptSettings('border', usual)).toEqual(usual);
  expect(JSON.parse(kept.get('part-settings') ?? '')).toMatchObject({ state: { parts: { offset: { by: 5 } } } });
});

test('what is usually nothing is kept, whatever it is', () => {
  keepSettings('gap', { gapMm: 3 });
  expect(keptSettings('gap', { gapMm: null })).toEqual({ gapMm: 3 });
  keepSettings('gap', { gapMm: null });
  expect(keptSettings('gap', { gapMm: null })).toEqual({ gapMm: null });
  expect(keptSettings('new', { gapMm: null })).toEqual({ gapMm: null });
});

test('what was kept of another kind, or is not known any more, is left out', () => {
  keepSettings('odd', { by: '7', join: null, both: 1, size: [1, 2], gone: true });
  expect(keptSettings('odd', usual)).toEqual(usual);
  keepSettings('odd', { size: { wide: 'x', high: 8 } });
  expect(keptSettings('odd', usual)).toEqual({ ...usual, size: { wide: 3, high: 8 } });
});
