import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { catalogueText, coreSentences, sentences, strayWords } from './catalogue.mjs';
import { root } from './lib.mjs';

const folder = join(root, 'apps/web/src/words');
const read = (name) => JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8'));
/** The values that a sentence is filled in with, in the order of the alphabet. */
const valuesIn = (sentence) => [...new Set(sentence.match(/{{\w+}}/g))].sort();

test('whatever stands on a screen is said through the catalogue', () => {
  expect(strayWords()).toEqual([]);
});

test('the catalogue is what the code says: `npm run docs` writes it', () => {
  expect(sentences().length).toBeGreaterThan(2000);
  expect(coreSentences().length).toBeGreaterThan(1200);
  expect(readFileSync(join(folder, 'en.json'), 'utf8')).toBe(catalogueText());
});

test.each(['interface', 'core'])(
  'German has every sentence of the %s, with its values, and none that nobody says',
  (room) => {
    const [english, german] = [read('en')[room], read('de')[room]];
    // A language may tell one from many where English does not.
    const plain = Object.entries(german).map(([key, text]) => [key.replace(/_(one|other)$/, ''), text]);
    const known = new Set(plain.map(([key]) => key));
    expect(Object.keys(english).filter((key) => !known.has(key))).toEqual([]);
    expect([...known].filter((key) => !(key in english))).toEqual([]);
    expect(plain.filter(([key, text]) => valuesIn(key).join() !== valuesIn(text).join())).toEqual([]);
    expect(plain.filter(([, text]) => text.trim() === '')).toEqual([]);
  },
);

/** Orders to one whom one knows well, in the forms that are no other word besides. */
const familiar =
  /\b(nimm|mach|lass|schreib|bring|lege|wähle|zeichne|speichere|sieh|klicke|tippe|gib|rücke|kürze|kopiere|verschiebe|lösche|prüfe|öffne|du|dir|dich|dein\w*)\b/i;

test('German speaks to everybody as “Sie”', () => {
  const german = Object.values(read('de')).flatMap((sentences) => Object.values(sentences));
  expect(german.filter((sentence) => familiar.test(sentence))).toEqual([]);
});
