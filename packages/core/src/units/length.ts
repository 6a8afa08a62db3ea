/** Units a length can be typed and shown in. Inside Lambent every length is a number of millimetres. */
export type LengthUnit = 'mm' | 'cm' | 'in';

export const lengthUnits: readonly LengthUnit[] = ['mm', 'cm', 'in'];

const mmPerUnit: Record<LengthUnit, number> = { mm: 1, cm: 10, in: 25.4 };

const unitWords: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: 25.4,
  inch: 25.4,
  inches: 25.4,
  '"': 25.4,
  '″': 25.4,
  '”': 25.4,
  ft: 304.8,
};

/** What was typed as a value, or why it is none. */
export type Parsed<T = number> = { ok: true; value: T } | { ok: false; reason: string };

type Token =
  | { kind: 'number'; value: number; text: string; start: number; end: number }
  | { kind: 'unit'; factor: number; text: string; start: number; end: number }
  | { kind: 'op'; text: string; start: number; end: number };

/** A quantity while a sum is worked out: a plain number, or a length in mm. */
interface Quantity {
  value: number;
  isLength: boolean;
  /** Set while a number still stands beside its own unit, as in `2 in`: that unit in mm. */
  unit?: number;
}

class Refused extends Error {}

/**
 * Reads a length as people type it: `12`, `3.2cm`, `7 3/8`, `7⅜`, `2-5/16 in`, `0.4"`, `150/4`, `22 + 2*3mm`.
 * A number with no unit takes `unit`; in a product one side must be a plain number.
 * `2-5/16`, written without spaces, is two and five sixteenths; `2 - 5/16` is a difference.
 *
 * @param text what was typed
 * @param unit the unit of the field
 * @returns the length in mm, or a sentence that says what is wrong; never throws
 */
export function parseLength(text: string, unit: LengthUnit): Parsed {
  try {
    const plain = withPlainFractions(text);
    const tokens = joinMixedFractions(tokenise(plain), plain);
    if (tokens.length === 0) throw new Refused('Type a length, for example 12.5 or 3/8 in.');
    const parser = new SumParser(tokens, mmPerUnit[unit]);
    const result = parser.sum();
    parser.expectEnd();
    const value = result.isLength ? result.value : result.value * mmPerUnit[unit];
    if (!Number.isFinite(value)) throw new Refused('That does not come to a number.');
    return { ok: true, value };
  } catch (error) {
    if (error instanceof Refused) return { ok: false, reason: error.message };
    throw error;
  }
}

/**
 * Reads what is typed into a field that holds a length: as `parseLength` does, and beside it a change of that
 * length: `/2`, `*3`, `+3mm` go on from it, and `50%` is that share of it. A leading `-` is a sign.
 *
 * @param valueMm the length in the field, in mm
 */
export function parseLengthFrom(text: string, unit: LengthUnit, valueMm: number): Parsed {
  const typed = text.trim();
  const share = /^(\d+(?:[.,]\d*)?)\s*%$/.exec(typed);
  if (share) return { ok: true, value: (valueMm * Number(share[1].replace(',', '.'))) / 100 };
  return parseLength(/^[/*+×÷]/.test(typed) ? `(${plainNumber(valueMm)}mm)${typed}` : typed, unit);
}

/**
 * Reads lengths one after the other, parted by `;`, each as `parseLength` does. One that is missing is refused.
 *
 * @returns the lengths in mm, or a sentence that says which of them is wrong, and why
 */
export function parseLengths(text: string, unit: LengthUnit): Parsed<readonly number[]> {
  const lengths: number[] = [];
  for (const [i, word] of text.split(';').entries()) {
    const parsed = parseLength(word, unit);
    if (!parsed.ok) return { ok: false, reason: `Length ${i + 1}: ${parsed.reason}` };
    lengths.push(parsed.value);
  }
  return { ok: true, value: lengths };
}

/** A number in digits alone, as `parseLength` reads it. */
function plainNumber(value: number): string {
  return value < 0 ? `0-${(-value).toFixed(12)}` : value.toFixed(12);
}

/** A text whose fraction characters, such as ½, are whole numbers with a stroke between them. */
function withPlainFractions(text: string): string {
  return text.replace(/[¼-¾⅐-⅞]/g, (character) => ` ${character.normalize('NFKD').replace('\u2044', '/')}`);
}

function tokenise(text: string): Token[] {
  const tokens: Token[] = [];
  const pattern = /\s+|(\d+[.,]\d*|[.,]\d+|\d+)|([a-zA-Z]+|["″”])|([-+*/()×÷−])|(.)/gy;
  for (const match of text.matchAll(pattern)) {
    const [whole, number, word, op, other] = match;
    const start = match.index;
    const end = start + whole.length;
    if (number !== undefined) {
      tokens.push({ kind: 'number', value: Number(number.replace(',', '.')), text: number, start, end });
    } else if (word !== undefined) {
      const factor = unitWords[word.toLowerCase()];
      if (factor === undefined) throw new Refused(`“${word}” is not a unit of length; use mm, cm or in.`);
      tokens.push({ kind: 'unit', factor, text: word, start, end });
    } else if (op !== undefined) {
      const plain = op === '×' ? '*' : op === '÷' ? '/' : op === '−' ? '-' : op;
      tokens.push({ kind: 'op', text: plain, start, end });
    } else if (other !== undefined) {
      throw new Refused(`“${other}” has no place in a length.`);
    }
  }
  return tokens;
}

/** Turns `7 3/8` and `2-5/16` into one number token: whole, then a proper fraction of whole numbers. */
function joinMixedFractions(tokens: Token[], text: string): Token[] {
  const out: Token[] = [];
  for (let i = 0; i < tokens.length; i++) {
    const whole = tokens[i];
    if (whole.kind === 'number' && /^\d+$/.test(whole.text)) {
      const dash = tokens[i + 1]?.kind === 'op' && tokens[i + 1].text === '-';
      const index = dash ? i + 2 : i + 1;
      const [over, slash, under] = tokens.slice(index, index + 3);
      const tight = !dash || !/\s/.test(text.slice(whole.end, under?.start ?? whole.end));
      if (
        over?.kind === 'number' &&
        slash?.kind === 'op' &&
        slash.text === '/' &&
        under?.kind === 'number' &&
        /^\d+$/.test(over.text) &&
        /^\d+$/.test(under.text) &&
        over.value < under.value &&
        tight
      ) {
        const value = whole.value + over.value / under.value;
        out.push({ ...whole, value, end: under.end });
        i = index + 2;
        continue;
      }
    }
    out.push(whole);
  }
  return out;
}

/** Recursive descent over `sum := product (± product)*`, `product := factor (×÷ factor)*`. */
class SumParser {
  private position = 0;
  private depth = 0;

  constructor(
    private readonly tokens: Token[],
    private readonly fieldFactor: number,
  ) {}

  sum(): Quantity {
    let left = this.product();
    for (let op = this.takeOp('+', '-'); op; op = this.takeOp('+', '-')) {
      const right = this.product();
      const sign = op === '+' ? 1 : -1;
      if (left.isLength || right.isLength) {
        left = { value: this.toLength(left) + sign * this.toLength(right), isLength: true };
      } else {
        left = { value: left.value + sign * right.value, isLength: false };
      }
    }
    return left;
  }

  expectEnd(): void {
    const token = this.tokens[this.position];
    if (token) throw new Refused(`“${token.text}” was not expected there.`);
  }

  private product(): Quantity {
    let left = this.factor();
    for (let op = this.takeOp('*', '/'); op; op = this.takeOp('*', '/')) {
      const right = this.factor();
      if (op === '*') {
        if (left.isLength && right.isLength) throw new Refused('A length times a length is an area.');
        left = { value: left.value * right.value, isLength: left.isLength || right.isLength };
      } else {
        if (right.value === 0) throw new Refused('Nothing can be divided by 0.');
        if (left.isLength && right.isLength) throw new Refused('A length divided by a length is not a length.');
        if (!right.isLength) {
          left = { value: left.value / right.value, isLength: left.isLength };
        } else if (right.unit === undefined) {
          throw new Refused('A number divided by a length is not a length.');
        } else {
          // `1/2"`: the unit belongs to the quotient.
          left = { value: (left.value / (right.value / right.unit)) * right.unit, isLength: true };
        }
      }
    }
    return left;
  }

  private factor(): Quantity {
    const token = this.tokens[this.position];
    if (!token) throw new Refused('The sum stops too soon.');
    if (token.kind === 'op' && (token.text === '-' || token.text === '+')) {
      this.position++;
      const inner = this.factor();
      return token.text === '-' ? { ...inner, value: -inner.value } : inner;
    }
    if (token.kind === 'op' && token.text === '(') {
      if (++this.depth > 50) throw new Refused('Too many brackets.');
      this.position++;
      const inner = this.sum();
      if (this.takeOp(')') === null) throw new Refused('A bracket is not closed.');
      this.depth--;
      return this.withUnit(inner);
    }
    if (token.kind !== 'number') throw new Refused(`“${token.text}” was not expected there.`);
    this.position++;
    return this.withUnit({ value: token.value, isLength: false });
  }

  private withUnit(quantity: Quantity): Quantity {
    const token = this.tokens[this.position];
    if (token?.kind !== 'unit') return quantity;
    if (quantity.isLength) throw new Refused(`“${token.text}” was not expected there.`);
    this.position++;
    return { value: quantity.value * token.factor, isLength: true, unit: token.factor };
  }

  private toLength(quantity: Quantity): number {
    return quantity.isLength ? quantity.value : quantity.value * this.fieldFactor;
  }

  private takeOp(...ops: string[]): string | null {
    const token = this.tokens[this.position];
    if (token?.kind !== 'op' || !ops.includes(token.text)) return null;
    this.position++;
    return token.text;
  }
}

export interface LengthFormat {
  /** Decimals at most; by default 2 for mm, 3 for cm, 4 for inches (all finer than 0.01 mm). */
  decimals?: number;
  /** Keep trailing zeros, as in a column of figures. */
  fixed?: boolean;
  /** Inches as a mixed fraction of this denominator, where that is exact to 0.01 mm. */
  fractionOf?: 2 | 4 | 8 | 16 | 32 | 64;
  /** Leave the unit out. */
  bare?: boolean;
}

const usualDecimals: Record<LengthUnit, number> = { mm: 2, cm: 3, in: 4 };

/** A length in mm as text in `unit`, such as `12.5 mm` or `2 5/16 in`. */
export function formatLength(mm: number, unit: LengthUnit, format: LengthFormat = {}): string {
  const suffix = format.bare ? '' : ` ${unit}`;
  if (unit === 'in' && format.fractionOf) {
    const fraction = inchFraction(mm / 25.4, format.fractionOf);
    if (fraction !== null) return fraction + suffix;
  }
  const decimals = format.decimals ?? usualDecimals[unit];
  let text = (mm / mmPerUnit[unit]).toFixed(decimals);
  if (!format.fixed && text.includes('.')) text = text.replace(/\.?0+$/, '');
  if (Number(text) === 0) text = text.replace('-', '');
  return text + suffix;
}

function inchFraction(inches: number, denominator: number): string | null {
  const parts = Math.round(Math.abs(inches) * denominator);
  if (Math.abs(parts / denominator - Math.abs(inches)) * 25.4 > 0.01) return null;
  const sign = inches < 0 && parts > 0 ? '-' : '';
  const whole = Math.floor(parts / denominator);
  let over = parts % denominator;
  let under = denominator;
  if (over === 0) return `${sign}${whole}`;
  while (over % 2 === 0) {
    over /= 2;
    under /= 2;
  }
  return whole === 0 ? `${sign}${over}/${under}` : `${sign}${whole} ${over}/${under}`;
}
