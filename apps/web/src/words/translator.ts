/** A sentence with values in it, as it is found again and said in another language. */
interface Pattern {
  readonly found: RegExp;
  readonly names: readonly string[];
  /** Which values are followed by another after nothing but a space: where one ends is not seen by what stands around it. */
  readonly beside: readonly number[];
  readonly translated: string;
}

/** So many sentences are kept as they were said: those on the screen are asked for again and again. */
const mostKept = 2000;
/** Patterns of fewer letters than that would match anything. */
const leastFixed = 4;
/** What stands between words that are said beside each other. */
const between = ' · ';

/**
 * Translates sentences that come with their values in them, as checks and the server make them: a sentence is found by what
 * stands around its values. One that is not known stays as it is.
 * @param words by English sentence, with `{{name}}` where a value stands; the translation has the same names
 */
export function translatorOf(words: Readonly<Record<string, string>>): (sentence: string) => string {
  const kept = new Map<string, string>();
  const patterns = patternsOf(words);

  const translate = (sentence: string): string => {
    const known = kept.get(sentence) ?? (Object.hasOwn(words, sentence) ? words[sentence] : undefined);
    if (known !== undefined) return known;
    const translated = byPattern(sentence) ?? inParts(sentence) ?? counted(sentence);
    if (kept.size >= mostKept) kept.clear();
    kept.set(sentence, translated);
    return translated;
  };

  const byPattern = (sentence: string): string | null => {
    for (const { found, names, beside, translated } of patterns) {
      const match = found.exec(sentence);
      if (!match) continue;
      const filledIn = match.slice(1);
      for (const i of beside) [filledIn[i], filledIn[i + 1]] = parted(`${filledIn[i]} ${filledIn[i + 1]}`);
      // What is filled in may be words as well, such as `1 outline lies`.
      const values = new Map(names.map((name, i) => [name, translate(filledIn[i])]));
      return translated.replace(/{{(\w+)}}/g, (_, name: string) => values.get(name) ?? '');
    }
    return null;
  };

  /** Two values with a space between, of which the first is as many words as are known together. */
  const parted = (text: string): [string, string] => {
    const each = text.split(' ');
    const first = (count: number) => each.slice(0, count).join(' ');
    let count = each.length - 1;
    while (count > 1 && translate(first(count)) === first(count)) count--;
    return [first(count), each.slice(count).join(' ')];
  };

  /** Words beside each other, such as `Cut · inside`. */
  const inParts = (text: string): string | null => {
    const parts = text.split(between);
    return parts.length > 1 ? parts.map(translate).join(between) : null;
  };

  /** A count before words that are known, such as `3 pieces are`. */
  const counted = (text: string): string => {
    const [, count, thing = ''] = /^(\d+) (.+)$/s.exec(text) ?? [];
    return Object.hasOwn(words, thing) ? `${count} ${words[thing]}` : text;
  };

  return translate;
}

/** The sentences with values, those of the most words first: what says more about a sentence is the better match. */
function patternsOf(words: Readonly<Record<string, string>>): Pattern[] {
  return Object.entries(words)
    .filter(([sentence]) => /{{\w+}}/.test(sentence) && fixedLength(sentence) >= leastFixed)
    .sort(([a], [b]) => fixedLength(b) - fixedLength(a))
    .map(([sentence, translated]) => ({
      found: new RegExp(
        `^${sentence
          .split(/{{\w+}}/)
          .map(escaped)
          .join('([^]*?)')}$`,
      ),
      names: [...sentence.matchAll(/{{(\w+)}}/g)].map(([, name]) => name),
      beside: sentence.split(/{{\w+}}/).flatMap((text, i) => (text === ' ' ? [i - 1] : [])),
      translated,
    }));
}

function fixedLength(sentence: string): number {
  return sentence.replace(/{{\w+}}/g, '').replace(/\P{L}/gu, '').length;
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}
