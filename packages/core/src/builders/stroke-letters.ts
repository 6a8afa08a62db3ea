import { type Path, PathBuilder } from '../geometry/paths/path.ts';

/**
 * Letters as single straight strokes, to be scored: each stroke is its points, x from 0 to 4 and y from 0 up to 6. They
 * need no font, so that parts are the same wherever they are made.
 */
const strokesOf: Readonly<Record<string, string>> = {
  A: '00 04 26 44 40|02 42',
  B: '00 06 36 45 44 33 03|33 42 41 30 00',
  C: '45 36 16 05 01 10 30 41',
  D: '00 06 26 44 42 20 00',
  E: '46 06 00 40|03 33',
  F: '46 06 00|03 33',
  G: '45 36 16 05 01 10 30 41 43 23',
  H: '00 06|40 46|03 43',
  I: '20 26|16 36|10 30',
  J: '46 41 30 10 01',
  K: '00 06|46 03 40',
  L: '06 00 40',
  M: '00 06 23 46 40',
  N: '00 06 40 46',
  O: '10 01 05 16 36 45 41 30 10',
  P: '00 06 36 45 44 33 03',
  Q: '10 01 05 16 36 45 41 30 10|22 40',
  R: '00 06 36 45 44 33 03|23 40',
  S: '45 36 16 05 04 13 33 42 41 30 10 01',
  T: '06 46|26 20',
  U: '06 01 10 30 41 46',
  V: '06 20 46',
  W: '06 10 23 30 46',
  X: '00 46|06 40',
  Y: '06 23 46|23 20',
  Z: '06 46 00 40',
};

const [gridHeight, advance, gridWidth] = [6, 5.5, 4];

/** A word that is scored; x and y are its middle, in mm. */
export interface Label {
  readonly words: string;
  readonly x: number;
  readonly y: number;
  readonly heightMm: number;
}

/** How wide a label is, in mm. */
export function labelWidth({ words, heightMm }: Label): number {
  return ((words.length * advance - (advance - gridWidth)) * heightMm) / gridHeight;
}

/** @returns the strokes of labels, y down, in mm; of capital letters alone */
export function labelStrokes(labels: readonly Label[]): Path {
  const builder = new PathBuilder();
  for (const label of labels) {
    const scale = label.heightMm / gridHeight;
    const left = label.x - labelWidth(label) / 2;
    [...label.words].forEach((character, i) => {
      for (const stroke of strokesOf[character].split('|')) {
        stroke.split(' ').forEach((point, k) => {
          const x = left + (Number(point[0]) + i * advance) * scale;
          const y = label.y + (gridHeight / 2 - Number(point[1])) * scale;
          if (k === 0) builder.moveTo(x, y);
          else builder.lineTo(x, y);
        });
      }
    });
  }
  return builder.build();
}

/** A name for the nth of many, counted from 0: A to Z, then AA, AB, … */
export function letterName(n: number): string {
  const last = String.fromCharCode(65 + (n % 26));
  return n < 26 ? last : letterName(Math.floor(n / 26) - 1) + last;
}
