import { arcTo } from '../../geometry/paths/arc.ts';
import { type Path, PathBuilder } from '../../geometry/paths/path.ts';

/*
 * Reads SVG path data straight into a path. It does not go through a list of segments, as packages for
 * it do: on drawings of many nodes that list takes most of the time and memory of reading them.
 */

export interface PathDataReading {
  readonly path: Path;
  /** Where, counted from 1, the data stops making sense; null when all was read. */
  readonly brokenAt: number | null;
  /** Whether it stops at a number too large to use. */
  readonly tooLarge: boolean;
}

/** Coordinates beyond this are no drawing. */
const largest = 1e9;

/** Character codes of the commands' small letters. */
const Letter = { a: 97, c: 99, h: 104, l: 108, m: 109, q: 113, s: 115, t: 116, v: 118, z: 122 } as const;

/** How many numbers a command takes, by its small letter's code; -1 for what is no command. */
const argumentsOf = new Int8Array(128).fill(-1);
for (const [letter, count] of Object.entries({ m: 2, l: 2, h: 1, v: 1, c: 6, s: 4, q: 4, t: 2, a: 7, z: 0 })) {
  argumentsOf[letter.charCodeAt(0)] = count;
}

/** Path data by SVG's grammar, read up to its first error, as SVG asks. */
export function readPathData(d: string): PathDataReading {
  const scanner = new Scanner(d);
  const builder = new PathBuilder();
  const n = [0, 0, 0, 0, 0, 0, 0];
  let command = 0;
  let previous = 0;
  /** The handle that a smooth curve mirrors. */
  let handleX = 0;
  let handleY = 0;
  let tooLarge = false;
  let broken = false;

  for (;;) {
    const letter = scanner.command();
    if (letter === 0) {
      if (scanner.atEnd()) break;
      // Numbers without a letter repeat the last command; after a move they draw lines.
      if (command === 0 || (command | 32) === Letter.z) {
        broken = true;
        break;
      }
      if ((command | 32) === Letter.m) command--;
    } else {
      command = letter;
    }
    const kind = command | 32;
    const count = argumentsOf[kind];
    if (count < 0 || (previous === 0 && kind !== Letter.m)) {
      broken = true;
      if (letter !== 0) scanner.position--;
      break;
    }
    for (let i = 0; i < count; i++) {
      const value = kind === Letter.a && (i === 3 || i === 4) ? scanner.flag() : scanner.number();
      if (!(Math.abs(value) <= largest)) {
        broken = true;
        tooLarge = Math.abs(value) > largest;
        break;
      }
      n[i] = value;
    }
    if (broken) break;

    const dx = command === kind ? builder.x : 0;
    const dy = command === kind ? builder.y : 0;
    let smoothX = builder.x;
    let smoothY = builder.y;
    switch (kind) {
      case Letter.m:
        builder.moveTo(dx + n[0], dy + n[1]);
        break;
      case Letter.l:
        builder.lineTo(dx + n[0], dy + n[1]);
        break;
      case Letter.h:
        builder.lineTo(dx + n[0], builder.y);
        break;
      case Letter.v:
        builder.lineTo(builder.x, dy + n[0]);
        break;
      case Letter.c:
        builder.cubicTo(dx + n[0], dy + n[1], dx + n[2], dy + n[3], dx + n[4], dy + n[5]);
        smoothX = dx + n[2];
        smoothY = dy + n[3];
        break;
      case Letter.s: {
        const mirrored = previous === Letter.c || previous === Letter.s;
        const x1 = mirrored ? 2 * builder.x - handleX : builder.x;
        const y1 = mirrored ? 2 * builder.y - handleY : builder.y;
        builder.cubicTo(x1, y1, dx + n[0], dy + n[1], dx + n[2], dy + n[3]);
        smoothX = dx + n[0];
        smoothY = dy + n[1];
        break;
      }
      case Letter.q:
        builder.quadraticTo(dx + n[0], dy + n[1], dx + n[2], dy + n[3]);
        smoothX = dx + n[0];
        smoothY = dy + n[1];
        break;
      case Letter.t: {
        const mirrored = previous === Letter.q || previous === Letter.t;
        smoothX = mirrored ? 2 * builder.x - handleX : builder.x;
        smoothY = mirrored ? 2 * builder.y - handleY : builder.y;
        builder.quadraticTo(smoothX, smoothY, dx + n[0], dy + n[1]);
        break;
      }
      case Letter.a:
        arcTo(builder, n[0], n[1], n[2], n[3] !== 0, n[4] !== 0, dx + n[5], dy + n[6]);
        break;
      default:
        builder.close();
    }
    handleX = smoothX;
    handleY = smoothY;
    previous = kind;
  }
  return { path: builder.build(), brokenAt: broken ? Math.min(scanner.position, d.length - 1) + 1 : null, tooLarge };
}

const powers = Array.from({ length: 23 }, (_, i) => 10 ** i);

const isDigit = (code: number) => code >= 48 && code <= 57;
const isSpace = (code: number) => code === 32 || (code >= 9 && code <= 13);

const encoder = new TextEncoder();
/** Holds the path data that is being read, byte by byte; grows to the longest. */
let bytes = new Uint8Array(1 << 12);

/**
 * Goes through path data. All that means something in it is ASCII, so up to where it stops making sense a
 * byte of UTF-8 is a character; bytes are got at in a fraction of the time.
 */
class Scanner {
  position = 0;
  private readonly end: number;
  private readonly bytes: Uint8Array;

  constructor(private readonly text: string) {
    // With room for the first character that is not ASCII, at which reading stops.
    if (bytes.length < text.length + 4) bytes = new Uint8Array(2 * text.length + 4);
    this.end = encoder.encodeInto(text, bytes).written;
    // What follows the end is left over from before.
    bytes[this.end] = 0;
    this.bytes = bytes;
  }

  atEnd(): boolean {
    this.passBlanks(false);
    return this.position >= this.end;
  }

  /** The code of the next command letter, or 0 where a number or the end follows. */
  command(): number {
    this.passBlanks(true);
    const code = this.bytes[this.position];
    const small = code | 32;
    if (!(small >= 97 && small <= 122)) return 0;
    this.position++;
    return code;
  }

  /** A flag of an arc: 0 or 1, which may stand right before the next number. NaN when it is neither. */
  flag(): number {
    this.passBlanks(true);
    const code = this.bytes[this.position];
    if (code !== 48 && code !== 49) return Number.NaN;
    this.position++;
    return code - 48;
  }

  /** The next number, NaN where there is none; then the scanner stands at what is not one. */
  number(): number {
    this.passBlanks(true);
    const { bytes } = this;
    const start = this.position;
    let index = start;
    let code = bytes[index];
    const negative = code === 45;
    if (negative || code === 43) code = bytes[++index];
    let mantissa = 0;
    let digits = 0;
    let decimals = 0;
    for (; isDigit(code); code = bytes[++index]) {
      mantissa = mantissa * 10 + (code - 48);
      digits++;
    }
    if (code === 46) {
      code = bytes[++index];
      for (; isDigit(code); code = bytes[++index]) {
        mantissa = mantissa * 10 + (code - 48);
        decimals++;
      }
    }
    if (digits + decimals === 0) return Number.NaN;
    let exponent = false;
    if (code === 101 || code === 69) {
      let after = index + 1;
      const sign = bytes[after];
      if (sign === 43 || sign === 45) after++;
      if (isDigit(bytes[after])) {
        exponent = true;
        while (isDigit(bytes[after])) after++;
        index = after;
      }
    }
    this.position = index;
    // Whole numbers up to 2^53 and powers of ten up to 10^22 are exact, so their quotient is rounded once.
    if (exponent || digits + decimals > 15) return Number(this.text.slice(start, index));
    const value = decimals === 0 ? mantissa : mantissa / powers[decimals];
    return negative ? -value : value;
  }

  /** Passes over white space, and one comma in it where one may stand. */
  private passBlanks(comma: boolean): void {
    const { bytes } = this;
    let free = comma;
    for (;;) {
      const code = bytes[this.position];
      if (isSpace(code)) this.position++;
      else if (code === 44 && free) {
        free = false;
        this.position++;
      } else return;
    }
  }
}
