/** What one line of a program asks for. */
export type Command =
  | { kind: 'nothing' }
  | { kind: 'move'; rapid: boolean; x: number | null; y: number | null; feed: number | null; power: number | null }
  | { kind: 'laser'; on: boolean; power: number | null };

/** A line that is refused; the message says why. */
export class LineRefused extends Error {}

const longestLine = 256;

/**
 * Reads one RS-274 line: G0, G1, G21, G90, M4, M5 with X, Y, S and F, comments in brackets or after `;`.
 * Motion is modal: X and Y alone go on as the last G0 or G1 did.
 *
 * @throws LineRefused on any other word, on a word given twice, and on numbers that are none
 */
export function readLine(text: string, lastMotion: 0 | 1): Command {
  if (text.length > longestLine) throw new LineRefused(`the line is longer than ${longestLine} characters`);
  const plain = text
    .replace(/\([^()]*\)/g, ' ')
    .replace(/;.*$/, '')
    .trim()
    .toUpperCase();
  if (/[()]/.test(plain)) throw new LineRefused('a comment is not closed');
  let motion: 0 | 1 | null = null;
  let laser: boolean | null = null;
  const values = new Map<string, number>();
  let end = 0;
  for (const match of plain.matchAll(/\s*([A-Z])\s*([-+]?(?:\d+\.?\d*|\.\d+))/gy)) {
    const [whole, letter, digits] = match;
    end = match.index + whole.length;
    const value = Number(digits);
    if (letter === 'G') {
      if (value === 0 || value === 1) motion = value;
      else if (value !== 21 && value !== 90) throw new LineRefused(`G${digits} is not known`);
    } else if (letter === 'M') {
      if (value !== 4 && value !== 5) throw new LineRefused(`M${digits} is not known`);
      laser = value === 4;
    } else if ('XYSF'.includes(letter)) {
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
  if (power !== null && power < 0) throw new LineRefused('S may not be below 0');
  if (feed !== null && feed <= 0) throw new LineRefused('F must be above 0');
  if (laser !== null) return { kind: 'laser', on: laser, power };
  if (motion === null && values.size === 0) return { kind: 'nothing' };
  const rapid = (motion ?? lastMotion) === 0;
  return { kind: 'move', rapid, x: get('X'), y: get('Y'), feed, power };
}
