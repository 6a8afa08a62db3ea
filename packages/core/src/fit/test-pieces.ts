import type { Keep } from '../document/item.ts';
import type { Shape } from '../document/shape.ts';
import { rectangleOf } from '../document/shapes.ts';
import { type Path, PathBuilder } from '../geometry/paths/path.ts';

/** A piece to be cut and tried by hand; in mm from its own top left, y down. */
export interface TestPiece {
  readonly name: string;
  /** Cut lines; those without a word are cut as their layer says. */
  readonly cuts: readonly { readonly shape: Shape; readonly keep?: Keep }[];
  /** Scored words, with the middle of their baseline. */
  readonly labels: readonly { readonly words: string; readonly x: number; readonly y: number }[];
  readonly width: number;
  readonly height: number;
  /** What can be read off it, from the narrowest opening to the widest, in mm. */
  readonly steps: readonly number[];
}

/** How high labels are. */
export const labelHeight = 2.4;
/** How deep openings go, how much stands between and around them, and between the pieces. */
const depth = 12;
const wall = 5;
const apart = 4;
const foot = 8;

/** How wide a kerf comb's tongue is. */
const tongue = 10;

/** Steps from one length to another, to a hundredth of a step. */
export function stepsBetween(from: number, to: number, step: number): number[] {
  if (!(step > 0) || !(to >= from)) return [];
  const count = Math.min(60, Math.floor((to - from) / step + 1e-6) + 1);
  return Array.from({ length: count }, (_, i) => Math.round((from + i * step) * 1e4) / 1e4);
}

/**
 * A comb and a tongue, both cut along the line. Burnt, the tongue is a kerf narrower than drawn and each opening a
 * kerf wider. The opening marked `k` is drawn 2 k narrower than the tongue: the tongue goes into those marked with
 * the kerf or less, and just into the one marked with the kerf itself.
 */
export function kerfComb(kerfs: readonly number[]): TestPiece {
  const steps = [...kerfs].sort((a, b) => b - a);
  const comb = combOf(
    steps.map((kerf) => tongue - 2 * kerf),
    steps.map((kerf) => kerf.toFixed(3).replace(/0$/, '')),
  );
  const top = comb.height + apart;
  return {
    name: 'Kerf comb',
    cuts: [
      { shape: { kind: 'path', path: comb.path }, keep: 'line' },
      {
        shape: rectangleOf({ minX: wall, minY: top, maxX: wall + tongue, maxY: top + depth + foot }),
        keep: 'line',
      },
    ],
    labels: comb.labels,
    width: comb.width,
    height: top + depth + foot,
    steps,
  };
}

/** A comb whose openings are the stock's thickness and more or less of it: the stock's own edge is pushed into them. */
export function slotComb(thicknessMm: number, clearances: readonly number[]): TestPiece {
  const steps = [...clearances].sort((a, b) => a - b).filter((clearance) => thicknessMm + clearance > 0.1);
  const { path, labels, width, height } = combOf(
    steps.map((clearance) => thicknessMm + clearance),
    steps.map(signed),
  );
  return { name: 'Slot comb', cuts: [{ shape: { kind: 'path', path } }], labels, width, height, steps };
}

/** A pin, and a row of holes for it that are wider than it or narrower. */
export function pinRow(diameter: number, clearances: readonly number[]): TestPiece {
  const steps = [...clearances].sort((a, b) => a - b).filter((clearance) => diameter + clearance > 0.1);
  const pitch = Math.max(diameter + wall, 9);
  const [width, height] = [steps.length * pitch + wall, diameter + 2 * wall + foot];
  const hole = (cx: number, cy: number, d: number): Shape => ({ kind: 'ellipse', cx, cy, rx: d / 2, ry: d / 2 });
  const middle = (i: number) => wall / 2 + (i + 0.5) * pitch;
  return {
    name: 'Pin and holes',
    cuts: [
      { shape: rectangleOf({ minX: 0, minY: 0, maxX: width, maxY: height }) },
      ...steps.map((clearance, i) => ({ shape: hole(middle(i), wall + diameter / 2, diameter + clearance) })),
      { shape: hole(wall + diameter / 2, height + apart + diameter / 2, diameter) },
    ],
    labels: steps.map((clearance, i) => ({ words: signed(clearance), x: middle(i), y: height - 3 })),
    width,
    height: height + apart + diameter,
    steps,
  };
}

function signed(mm: number): string {
  const words = mm.toFixed(2);
  return mm > 0 ? `+${words}` : words;
}

interface Comb extends Pick<TestPiece, 'labels' | 'width' | 'height'> {
  readonly path: Path;
}

/** A plate with openings from its upper edge, a word under each. */
function combOf(openings: readonly number[], words: readonly string[]): Comb {
  const pitches = openings.map((opening) => Math.max(opening + wall, 9));
  const width = pitches.reduce((sum, pitch) => sum + pitch, wall);
  const height = depth + foot;
  const builder = new PathBuilder().moveTo(0, 0);
  let x = wall / 2;
  const labels = openings.map((opening, i) => {
    const middle = x + pitches[i] / 2;
    const [left, right] = [middle - opening / 2, middle + opening / 2];
    builder.lineTo(left, 0).lineTo(left, depth).lineTo(right, depth).lineTo(right, 0);
    x += pitches[i];
    return { words: words[i], x: middle, y: depth + 5 };
  });
  builder.lineTo(width, 0).lineTo(width, height).lineTo(0, height).close();
  return { path: builder.build(), labels, width, height };
}
