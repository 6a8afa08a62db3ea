/** The languages that the interface speaks, each by its own name. */
export const languages = { en: 'English', de: 'Deutsch' } as const;
export type Language = keyof typeof languages;

const place = 'language';

function isLanguage(text: string | null | undefined): text is Language {
  return text !== null && text !== undefined && Object.hasOwn(languages, text);
}

/** What was chosen in this browser; null where it goes by the browser's own languages. */
export const chosenLanguage: Language | null = (() => {
  const kept = globalThis.localStorage?.getItem(place) ?? null;
  return isLanguage(kept) ? kept : null;
})();

/** The first of the browser's languages that Lambent speaks. */
export const browserLanguage: Language =
  (globalThis.navigator?.languages ?? []).map((tag) => tag.split('-')[0]).find(isLanguage) ?? 'en';

/** The language of this page, for as long as it is open. */
export const language: Language = chosenLanguage ?? browserLanguage;

/** Speaks another language from now on, or that of the browser; the page is opened anew. */
export function speak(chosen: Language | null): void {
  if (chosen) localStorage.setItem(place, chosen);
  else localStorage.removeItem(place);
  location.reload();
}
