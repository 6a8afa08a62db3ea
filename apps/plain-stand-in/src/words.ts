/** A line that is not understood; the number says why. */
export class Fault extends Error {
  constructor(readonly code: number) {
    super(`error:${code}`);
  }
}

/** Why a line is not taken; in docs/plain-language.md. */
export const faults = {
  noLetter: 1,
  badNumber: 2,
  noSystemWord: 3,
  belowZero: 4,
  notIdle: 8,
  locked: 9,
  tooLong: 11,
  unknownWord: 20,
  twoOfAGroup: 21,
  noFeed: 22,
  noCentre: 33,
} as const;

/** Why it is in alarm: the numbers of `ALARM:n`. */
export const alarms = { limit: 1, offTheBed: 2, resetInMotion: 3 } as const;

/** The words of one line: letters with their numbers; G and M may stand several times. */
export interface Words {
  readonly g: readonly number[];
  readonly m: readonly number[];
  readonly values: ReadonlyMap<string, number>;
}

const known = { G: [0, 1, 2, 3, 4, 21, 90], M: [3, 4, 5, 7, 8, 9] };
const longest = 80;

/** Takes a line of RS-274 apart. @throws Fault */
export function wordsOf(line: string): Words {
  if (line.length > longest) throw new Fault(faults.tooLong);
  const plain = line
    .replace(/\([^)]*\)/g, '')
    .replace(/;.*/, '')
    .replace(/\s+/g, '')
    .toUpperCase();
  const words = { g: [] as number[], m: [] as number[], values: new Map<string, number>() };
  let i = 0;
  while (i < plain.length) {
    const letter = plain[i];
    if (letter < 'A' || letter > 'Z') throw new Fault(faults.noLetter);
    const digits = /^[-+]?\d*\.?\d*/.exec(plain.slice(i + 1))?.[0] ?? '';
    const value = Number(digits);
    if (digits === '' || Number.isNaN(value)) throw new Fault(faults.badNumber);
    i += 1 + digits.length;
    if (letter === 'G' || letter === 'M') {
      if (!known[letter].includes(value)) throw new Fault(faults.unknownWord);
      words[letter === 'G' ? 'g' : 'm'].push(value);
    } else if ('XYZIJFSP'.includes(letter)) {
      if (words.values.has(letter)) throw new Fault(faults.twoOfAGroup);
      words.values.set(letter, value);
    } else throw new Fault(faults.unknownWord);
  }
  for (const letter of ['F', 'S', 'P']) if ((words.values.get(letter) ?? 0) < 0) throw new Fault(faults.belowZero);
  return words;
}
