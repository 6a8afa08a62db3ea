import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { t } from '../words/words.ts';
import { type DrawingToolName, toolNames } from './tools/tool.ts';
import { toolLooks } from './tools/tool-looks.ts';

/** What is done by a letter alone, beside taking a tool, and its usual letter. */
const usualLetters = { catching: 'j', mark: 'm', showBed: 'b', showSelection: 's', look: 'c' } as const;

/** What a letter alone can do: take a tool, or something else. */
export type LetterName = DrawingToolName | keyof typeof usualLetters;

export const letterNames: readonly LetterName[] = [
  ...toolNames,
  ...(Object.keys(usualLetters) as (keyof typeof usualLetters)[]),
];

interface OwnKeys {
  /** Whether single characters are shortcuts at all: who speaks to the computer does without. */
  readonly isOn: boolean;
  /** Letters that were chosen in place of the usual ones. */
  readonly letters: Readonly<Partial<Record<LetterName, string>>>;
}

/** The keys as they are in this browser. */
export const useOwnKeys = create<OwnKeys>()(
  persist((): OwnKeys => ({ isOn: true, letters: {} }), { name: 'own-keys' }),
);

/** The letter that does something, as it is shown. */
export function letterOf(name: LetterName): string {
  return (useOwnKeys.getState().letters[name] ?? usualLetterOf(name)).toUpperCase();
}

function usualLetterOf(name: LetterName): string {
  return isTool(name) ? toolLooks[name].key : usualLetters[name];
}

/** Whether a letter takes a tool. */
export function isTool(name: LetterName): name is DrawingToolName {
  return name in toolLooks;
}

/**
 * What a key does by itself; null where it is no such letter. The usual keys of tools go by their place on the keyboard,
 * letters that were chosen by what stands on them.
 */
export function letterNameOf({ key, code }: { readonly key: string; readonly code: string }): LetterName | null {
  const { letters } = useOwnKeys.getState();
  const chosen = letterNames.find((name) => letters[name] === key);
  if (chosen) return chosen;
  const isUsual = (name: LetterName) => (isTool(name) ? toolLooks[name].code === code : usualLetters[name] === key);
  return letterNames.find((name) => letters[name] === undefined && isUsual(name)) ?? null;
}

/** Has a letter do something. @returns why not, in a sentence */
export function chooseLetter(name: LetterName, typed: string, nameOf: (name: LetterName) => string): string | null {
  const letter = typed.trim().toLowerCase();
  if (!/^\p{L}$/u.test(letter)) return t('One letter.');
  const other = letterNames.find((known) => known !== name && letterOf(known).toLowerCase() === letter);
  if (other) return t('{{letter}} is taken: {{other}}.', { letter: letter.toUpperCase(), other: nameOf(other) });
  useOwnKeys.setState(({ letters }) => ({ letters: { ...letters, [name]: letter } }));
  return null;
}

/** Has single characters be shortcuts, or not. */
export function switchLetters(isOn: boolean): void {
  useOwnKeys.setState({ isOn });
}

/** Takes the usual letters again. */
export function takeUsualLetters(): void {
  useOwnKeys.setState({ letters: {} });
}
