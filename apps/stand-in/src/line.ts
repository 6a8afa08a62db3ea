/** A line with the number that it may bear (N): null where it bears none. */
export type NumberedCommand = Command & { readonly number: number | null };

/** G0 to G3. */
export type Motion = 0 | 1 | 2 | 3;

/** What one line of a program asks for. */
export type Command =
  | { kind: 'nothing' }
  | {
      kind: 'move';
      /** Straight, at travel speed or burning; along an arc, clockwise or the other way. */
      motion: Motion;
      x: number | null;
      y: number | null;
      z: number | null;
      /** Where the centre of an arc is, seen from where it begins. */
      i: number | null;
      j: number | null;
      feed: number | null;
      power: number | null;
    }
  | { kind: 'wait'; seconds: number }
  | { kind: 'air'; level: 'off' | 'low' | 'high'; bar: number | null }
  /** `floor` is the power that the beam keeps to while it follows the speed. */
  | { kind: 'laser'; mode: 'off' | 'steady' | 'by speed'; power: number | null; floor: number | null };

const lasers = { 3: 'steady', 4: 'by speed', 5: 'off' } as const;
const airs = { 7: 'low', 8: 'high', 9: 'off' } as const;

/** A line that is refused; the message says why. */
export class LineRefused extends Error {}

const longestLine = 256;

/** Whether a line, numbered or not, is but a comment. */
export function isRemark(text: string): boolean {
  return text.replace(/^\s*N\d+|\([^()]*\)|;.*$/gi, '').trim() === '';
}

/**
 * Reads one RS-274 line: G0 to G4, G21, G90, M3 to M5, M7 to M9 with X, Y, Z, I, J, S, F, P and Q. A line number N and
 * comments in brackets or after `;` are passed over.
 * Motion is modal: X and Y alone go on as the last of G0 to G3 did.
 *
 * @throws LineRefused on any other word, on a word given twice, and on numbers that are none
 */
export function readLine(text: string, lastMotion: Motion): NumberedCommand {
  const numbered = /^\s*N(\d{1,9})(?!\.)/i.exec(text);
  const number = numbered ? Number(numbered[1]) : null;
  return { ...readWords(numbered ? text.slice(numbered[0].length) : text, lastMotion), number };
}

function readWords(text: string, lastMotion: Motion): Command {
  if (text.length > longestLine) throw new LineRefused(`the line is longer than ${longestLine} characters`);
  const plain = text
    .replace(/\([^()]*\)/g, ' ')
    .replace(/;.*$/, '')
    .trim()
    .toUpperCase();
  if (/[()]/.test(plain)) throw new LineRefused('a comment is not closed');
  let motion: Motion | null = null;
  let laser: 'off' | 'steady' | 'by speed' | null = null;
  let air: 'off' | 'low' | 'high' | null = null;
  let waits = false;
  const values = new Map<string, number>();
  let end = 0;
  for (const match of plain.matchAll(/\s*([A-Z])\s*([-+]?(?:\d+\.?\d*|\.\d+))/gy)) {
    const [whole, letter, digits] = match;
    end = match.index + whole.length;
    const value = Number(digits);
    if (letter === 'G') {
      if (isMotion(value)) motion = value;
      else if (value === 4) waits = true;
      else if (value !== 21 && value !== 90) throw new LineRefused(`G${digits} is not known`);
    } else if (letter === 'M') {
      if (value in lasers) laser = lasers[value as keyof typeof lasers];
      else if (value in airs) air = airs[value as keyof typeof airs];
      else throw new LineRefused(`M${digits} is not known`);
    } else if ('XYZIJSFPQ'.includes(letter)) {
      if (values.has(letter)) throw new LineRefused(`${letter} is given twice`);
      values.set(letter, value);
    } else {
      throw new LineRefused(`the word ${letter}${digits} is not known`);
    }
  }
  if (plain.slice(end).trim() !== '') throw new LineRefused(`“${plain.slice(end, end + 20).trim()}” makes no sense`);
  const get = (letter: string) => values.get(letter) ?? null;
  const power = get('S');
  const feed = get('F');
  const p = get('P');
  for (const letter of ['S', 'P', 'Q']) {
    if ((get(letter) ?? 0) < 0) throw new LineRefused(`${letter} may not be below 0`);
  }
  if (feed !== null && feed <= 0) throw new LineRefused('F must be above 0');
  if (waits) {
    if (p === null) throw new LineRefused('G4 needs P, the seconds to wait');
    return { kind: 'wait', seconds: p };
  }
  if (air !== null) return { kind: 'air', level: air, bar: p };
  if (laser !== null) return { kind: 'laser', mode: laser, power, floor: get('Q') };
  if (p !== null || get('Q') !== null) throw new LineRefused('P belongs to G4 or M8, Q to M4');
  if (motion === null && values.size === 0) return { kind: 'nothing' };
  const [i, j] = [get('I'), get('J')];
  const now = motion ?? lastMotion;
  if (now < 2 && (i !== null || j !== null)) throw new LineRefused('I and J belong to G2 and G3');
  if (now >= 2 && i === null && j === null && (get('X') !== null || get('Y') !== null))
    throw new LineRefused(`G${now} needs I or J, where its centre is`);
  return { kind: 'move', motion: now, x: get('X'), y: get('Y'), z: get('Z'), i, j, feed, power };
}

function isMotion(value: number): value is Motion {
  return value === 0 || value === 1 || value === 2 || value === 3;
}
