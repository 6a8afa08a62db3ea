import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { CardSetting } from './document/card.ts';
import { jobFromJson, jobToJson } from './document/json.ts';
import { box, item, jobWith, machine, material, shop } from './fixtures/shop.ts';
import { prepareJob } from './plan/prepare.ts';
import { changesInWords } from './recipes/book/book-changes.ts';
import { bookToCsv, readBookCsv } from './recipes/book/book-csv.ts';
import { bookFromText, bookToText, NotABook } from './recipes/book/book-json.ts';
import type { Recipe } from './recipes/book/recipe.ts';
import { cardSettingOf } from './recipes/cards/card-setting.ts';
import { cardWish } from './recipes/cards/card-wish.ts';
import { layCard } from './recipes/cards/test-card.ts';
import { fromTo, number } from './schema/values.ts';
import { figureColumn, type Setting } from './settings/setting.ts';
import { addSetting, type LayerSettings, settingOf, settingsOf, usualSettings } from './settings/settings.ts';

/*
 * A setting is one entry of the table: this one is known to everything that deals with settings, and to no other file.
 */

const trial: Setting<number> = {
  concerns: 'lines',
  words: 'pulse rate',
  label: 'Pulses',
  unit: 'kHz',
  usual: 20,
  schema: number(0, 500),
  inRecipes: fromTo(1, 200),
  column: figureColumn('pulses kHz'),
  onCards: { counted: 'kHz', least: 1, most: 200 },
  field: { kind: 'figure', step: 1 },
  isFiner: true,
  onStrip: (value) => `${value} kHz`,
  beyond: (value, context) => (value > 100 ? `${context.machine.name} pulses up to 100 kHz, not at ${value}.` : null),
};

const name = 'pulseKHz' as keyof LayerSettings;
const say = (value: number) => ({ [name]: value }) as Partial<LayerSettings>;
const [cut] = material.recipes;
const told: Recipe = { ...cut, ...say(60) };
const book = [{ ...material, recipes: [told] }];
const job = jobWith([item(box(10, 10, 20), 'cut')]);
const layerOf = (settings: Partial<LayerSettings> | null, materials = book) => {
  const said = settings ? { ...job, settings: { cut: settings } } : job;
  const [layer] = prepareJob(said, { ...shop, materials }).layers;
  return layer;
};

let remove = () => {};
beforeAll(() => {
  remove = addSetting(name, trial);
});
afterAll(() => remove());

test('operations that burn in its way have it, with what goes without saying', () => {
  expect(settingsOf('cut')).toContain(name);
  expect(settingsOf('engrave')).not.toContain(name);
  expect(usualSettings()).toMatchObject({ [name]: 20 });
  expect(settingOf(name).label).toBe('Pulses');
  expect(() => addSetting(name, trial)).toThrow(RangeError);
});

test('a layer burns with the recipe’s, and with what was typed over it', () => {
  const recipe = layerOf(null);
  expect(recipe.applied.settings).toMatchObject({ [name]: 60 });
  expect(recipe.applied.sources[name]).toMatchObject({ kind: 'recipe', evidence: 'proven' });
  const typed = layerOf(say(90));
  expect(typed.applied.settings).toMatchObject({ [name]: 90 });
  expect(typed.applied.sources[name]).toEqual({ kind: 'hand' });
});

test('what the machine cannot do is said', () => {
  expect(layerOf(say(100)).beyond).toEqual([]);
  expect(layerOf(say(120)).beyond).toEqual([
    { setting: name, sentence: `${machine.name} pulses up to 100 kHz, not at 120.` },
  ]);
});

test('documents hold it within bounds', () => {
  const json = (value: unknown) => ({ ...jobToJson(job), settings: { cut: { [name]: value } } });
  expect(jobFromJson(json(90)).settings.cut).toEqual(say(90));
  expect(() => jobFromJson(json(501))).toThrow('settings of cut: pulseKHz must lie between 0 and 500, and is 501');
});

test('test cards can try it', () => {
  const setting = name as CardSetting;
  expect(cardSettingOf(setting)).toMatchObject({ name: 'Pulse rate', unit: 'kHz', least: 1, most: 200 });
  const { wish } = cardWish(shop, { material }, machine, 'cut', 'power-speed');
  const card = layCard({
    ...wish,
    rest: { ...wish.rest, speedMmPerS: 20 },
    across: { setting, from: 20, to: 60, steps: 3 },
  });
  expect(card.labels.slice(0, 3).map(({ words }) => words)).toEqual(['20', '40', '60']);
  expect(new Set(card.cells.map(({ settings }) => settings[name]))).toEqual(new Set([20, 40, 60]));
  expect(() => cardSettingOf('kerfMm' as CardSetting)).toThrow(RangeError);
});

test('the book holds it: as JSON, as a table, and in the words of a change', () => {
  expect(bookFromText(bookToText(book))[0].recipes).toEqual([told]);
  const wrong = bookToText([{ ...material, recipes: [{ ...cut, ...say(0) }] }]);
  expect(() => bookFromText(wrong)).toThrow(NotABook);
  expect(() => bookFromText(wrong)).toThrow('pulseKHz must be from 1 and up to 200');
  const csv = bookToCsv(book);
  expect(csv.split('\n')[0]).toContain('pulses kHz');
  expect(readBookCsv(csv, book, shop.machines).rows[0].recipe).toMatchObject({ [name]: 60 });
  expect(changesInWords(cut, told)).toBe('pulse rate none → 60 kHz');
});

test('a build that does not know it keeps it', () => {
  const json = JSON.parse(JSON.stringify(jobToJson({ ...job, settings: { cut: say(90) } })));
  remove();
  const read = jobFromJson(json);
  expect(read.settings.cut).toEqual(say(90));
  expect(prepareJob(read, { ...shop, materials: book }).layers[0].applied.settings).not.toHaveProperty(name);
  remove = addSetting(name, trial);
});
