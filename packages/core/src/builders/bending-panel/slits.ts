import type { PathBuilder } from '../../geometry/paths/path.ts';

/** A pattern of slits that lets flat stock bend: rows of slits along the bend, every other row shifted by half. */
export type SlitPattern = 'straight' | 'wave' | 'cross';

/** How slits lie, in mm. */
export interface SlitSizes {
  /** From one row to the next. */
  readonly spacing: number;
  readonly rows: number;
  /** How many slits go one after the other in a row that begins and ends with half a bridge. */
  readonly slits: number;
  /** From one slit to the next in a row. */
  readonly bridge: number;
}

/**
 * How much stronger the edge of a bar of rectangular section shears than its angle of twist says: the ratio of the two
 * coefficients of St Venant's torsion, by the ratio of the sides. From Timoshenko and Goodier, “Theory of Elasticity”, § 109.
 */
const torsion = [
  [1, 0.1406 / 0.208],
  [1.5, 0.196 / 0.231],
  [2, 0.229 / 0.246],
  [3, 0.263 / 0.267],
  [10, 1],
] as const;

function torsionRatio(sides: number): number {
  const ratio = Math.min(10, Math.max(1, sides));
  const next = Math.max(
    1,
    torsion.findIndex(([known]) => known >= ratio),
  );
  const [[fromSides, from], [toSides, to]] = [torsion[next - 1], torsion[next]];
  return from + ((to - from) * (ratio - fromSides)) / (toSides - fromSides);
}

/**
 * By how much the stock between two rows may turn, in radians for each mm that a link is long. Links are what lies between
 * slits of two rows, from a bridge to the next; they twist, and no fibre may shear by more than `shear`.
 */
export function turnPerLink(spacing: number, thickness: number, shear: number): number {
  const [short, long] = [Math.min(spacing, thickness), Math.max(spacing, thickness)];
  return shear / (torsionRatio(long / short) * short);
}

/** How long the links between two rows are: half a period less a bridge. */
export const linkLength = (widthMm: number, slits: number, bridge: number) => widthMm / slits / 2 - bridge;

/** How many rows a bend takes at least: between n rows there are n - 1 that turn. */
export function leastRows(angle: number, link: number, turn: number): number {
  return 1 + Math.ceil(angle / (link * turn) - 1e-9);
}

/**
 * Adds the slits of a bend to a path.
 *
 * @param from where the bend begins along x
 * @param widthMm of the panel, along y and about 0.
 * @returns how many there are
 */
export function addSlits(
  builder: PathBuilder,
  from: number,
  widthMm: number,
  { spacing, rows, slits, bridge }: SlitSizes,
  pattern: SlitPattern,
): number {
  const period = widthMm / slits;
  const top = -widthMm / 2;
  let made = 0;
  for (let row = 0; row < rows; row++) {
    const x = from + (row + 0.5) * spacing;
    const isShifted = row % 2 === 1;
    const count = isShifted ? slits + 1 : slits;
    for (let i = 0; i < count; i++) {
      // Of a shifted row the first and the last are halves, which run off the edge.
      const start = isShifted ? Math.max(top, top + (i - 0.5) * period + bridge / 2) : top + i * period + bridge / 2;
      const end = isShifted
        ? Math.min(-top, top + (i + 0.5) * period - bridge / 2)
        : top + (i + 1) * period - bridge / 2;
      addSlit(builder, x, start, end, spacing, pattern);
      made++;
    }
  }
  return made;
}

/** How far waves and the bars of crosses go to each side, as a share of the distance between rows. */
const sway = { wave: 0.2, cross: 0.3 };

function addSlit(
  builder: PathBuilder,
  x: number,
  start: number,
  end: number,
  spacing: number,
  pattern: SlitPattern,
): void {
  builder.moveTo(x, start);
  if (pattern !== 'wave') {
    builder.lineTo(x, end);
    if (pattern === 'straight') return;
    const [middle, arm] = [(start + end) / 2, sway.cross * spacing];
    builder.moveTo(x - arm, middle).lineTo(x + arm, middle);
    return;
  }
  // Two bows; a cubic whose handles are level goes three quarters as far as they do.
  const third = (end - start) / 6;
  const out = (sway.wave * spacing * 4) / 3;
  const middle = (start + end) / 2;
  builder
    .cubicTo(x + out, start + third, x + out, start + 2 * third, x, middle)
    .cubicTo(x - out, middle + third, x - out, middle + 2 * third, x, end);
}
