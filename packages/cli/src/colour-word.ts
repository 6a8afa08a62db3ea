import { readColour } from '@lambent/core/formats';
import { Unusable } from './unusable.ts';

/** The colour that an option names. @throws Unusable where it names none */
export function colourWord(option: string, word: string): string {
  const found = readColour(word);
  if (!found) throw new Unusable(`${option} must be a colour, such as #D0481E or red, and not “${word}”.`);
  return found.colour;
}
