import { setDefaultOptions } from 'date-fns';
import i18next from 'i18next';
import { type Language, language } from './language.ts';

i18next.init({
  lng: language,
  fallbackLng: false,
  ns: ['interface'],
  defaultNS: 'interface',
  // The English sentence is the key: what stands in the code is what is read on the screen.
  keySeparator: false,
  nsSeparator: false,
  interpolation: { escapeValue: false },
  initAsync: false,
});

/** What each language takes besides English, got only where it is spoken. */
const others: Readonly<Record<Exclude<Language, 'en'>, () => Promise<typeof import('./german.ts')>>> = {
  de: () => import('./german.ts'),
};
let translate = (sentence: string) => sentence;

/** Gets the words of this page's language, before anything is said. English needs none: its sentences are the keys. */
export async function loadWords(): Promise<void> {
  if (language === 'en') return;
  const { words, dates, translatorOf } = await others[language]();
  i18next.addResourceBundle(language, 'interface', words.interface);
  translate = translatorOf(words.core);
  setDefaultOptions({ locale: dates });
}

/**
 * A sentence of the interface in the language of whoever sits here; English where the catalogue has no other.
 * @param sentence in English, with `{{name}}` where a value stands; a key of words/en.json
 */
// Parts that only say words as they are loaded may be put together with others.
/* @__NO_SIDE_EFFECTS__ */
export function t(sentence: string, values?: Readonly<Record<string, unknown>>): string {
  return values ? i18next.t(sentence, { replace: values, count: asCount(values.count) }) : i18next.t(sentence);
}

/** A sentence that was made below the interface, as in a check or on the server, in the language of whoever sits here. */
export function said(sentence: string): string {
  return translate(sentence);
}

/** Words as they stand within a sentence: without a capital, but where all nouns of a language have one. */
export function lowered(words: string): string {
  return language === 'de' ? words : words.toLowerCase();
}

/** What a language chooses between one and many by. */
function asCount(count: unknown): number | undefined {
  return typeof count === 'number' ? count : undefined;
}
