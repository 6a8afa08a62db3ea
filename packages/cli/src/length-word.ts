import { parseLength } from '@lambent/core/units';
import { Unusable } from './unusable.ts';

/**
 * The length in mm that an option names.
 * @param wanted what it must be, such as `a length such as 120mm`.
 * @throws Unusable where it names none, or none above 0.
 */
export function lengthWord(option: string, word: string, wanted: string): number {
  const length = parseLength(word, 'mm');
  if (length.ok && length.value > 0) return length.value;
  throw new Unusable(`${option} must be ${wanted}, and not “${word}”.`);
}
