import { expect, test } from '@jest/globals';
import german from './de.json' with { type: 'json' };
import { translatorOf } from './translator.ts';

const core = german.core as Readonly<Record<string, string>>;
const translate = translatorOf(core);

test.each([
  ['Off the bed', 'Neben dem Bett'],
  [
    'Engrave takes 11 min 4 s by itself with its lines at 0°, and 4 min 53 s with lines at 90°: fewer, longer lines take less turning.',
    'Gravieren dauert für sich 11 min 4 s mit Linien bei 0°, und 4 min 53 s mit Linien bei 90°: Weniger, längere Linien kehren seltener um.',
  ],
  // Values that are words are said in the same language; those that are names stay.
  [
    '3 pieces are smaller than the 8 mm gaps of Wren’s bed, and would drop through.',
    /^3 Teile sind kleiner als die Lücken von 8 mm im Bett von Wren/,
  ],
  // A count goes with all of the words that are known with it.
  [
    '1 item has #123456, which means nothing in “House key” and would not be burnt. Say what it means; choose Note if it should not burn.',
    '1 Objekt hat #123456, was in „House key“ nichts bedeutet und nicht gebrannt würde. Sagen Sie, was es bedeutet; wählen Sie Notiz, wenn es nicht brennen soll.',
  ],
  ['2 paint is “red”', '2 paint is “red”'],
  ['Cut · inside', 'Schneiden · innen'],
  [
    'Power is 120 %; Wren takes more than 0 and up to 90 %.',
    'Die Leistung ist 120 %; Wren nimmt mehr als 0 und bis zu 90 %.',
  ],
  ['a name of the shop’s own', 'a name of the shop’s own'],
])('“%s” is said in German', (sentence, wanted) => {
  expect(translate(sentence)).toEqual(typeof wanted === 'string' ? wanted : expect.stringMatching(wanted));
});

test('every sentence with values is found again, whatever numbers stand in it', () => {
  const filled = (text: string) => text.replace(/{{(\w+)}}/g, (_, name: string) => String(name.length + 0.5));
  const sentences = Object.keys(core).filter(
    (key) => /{{\w+}}/.test(key) && key.replace(/\{\{\w+\}\}|\P{L}/gu, '').length >= 12,
  );
  expect(sentences.length).toBeGreaterThan(300);
  const lost = sentences.filter((key) => translate(filled(key)) !== filled(core[key]));
  // Two sentences that differ in nothing but a value cannot be told apart.
  expect(lost.filter((key) => translate(filled(key)) === filled(key))).toEqual([]);
  expect(lost.length).toBeLessThan(8);
});

test('what is said in a language without words stays', () => {
  expect(translatorOf({})('It is 3 mm wide.')).toBe('It is 3 mm wide.');
});
