/** Thresholds are made even in blocks of so many dots along each side. */
const block = 64;
/** How finely places of a screen are told apart before chance decides. */
const steps = 1 << 20;

/** A screen: so many lines to the mm, turned by so many degrees clockwise. */
export interface Screen {
  readonly linesPerMm: number;
  readonly degrees: number;
}

/** How early a place of a screen burns, by how far it lies along and across, in lines; from −1 to 1. */
type Spot = (along: number, across: number) => number;

/** Round dots that grow until they touch, and then holes that shrink. */
export const dotSpot: Spot = (along, across) => (Math.cos(2 * Math.PI * along) + Math.cos(2 * Math.PI * across)) / 2;
/** Lines that grow wider. */
export const lineSpot: Spot = (_, across) => Math.cos(2 * Math.PI * across);

/**
 * Ordered dithering by a screen whose dots or lines grow with the share. In each block the dots burn in the order of
 * their spots, evenly over all shares: so a grey comes out with its mean, whatever the screen's size and angle.
 *
 * @param shares what of each dot is to burn, 0 to 1, row by row
 * @param dotMm how wide a dot is; `rowMm` how far apart rows are
 * @returns 1 for each dot that burns, else 0
 */
export function screen(
  shares: Float32Array,
  columns: number,
  dotMm: number,
  rowMm: number,
  { linesPerMm, degrees }: Screen,
  spot: Spot,
): Uint8Array {
  const rows = shares.length / columns;
  const out = new Uint8Array(shares.length);
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  for (let top = 0; top < rows; top += block) {
    for (let left = 0; left < columns; left += block) {
      const [wide, high] = [Math.min(block, columns - left), Math.min(block, rows - top)];
      const order = new Float64Array(wide * high);
      for (let i = 0; i < order.length; i++) {
        const x = (left + (i % wide) + 0.5) * dotMm * linesPerMm;
        const y = (top + Math.floor(i / wide) + 0.5) * rowMm * linesPerMm;
        const late = Math.round(((1 - spot(x * cos + y * sin, y * cos - x * sin)) / 2) * steps);
        // One number to sort by: the spot, then chance, with the dot's own place at the end.
        order[i] = (late * block * block + chanceOf(i)) * block * block + i;
      }
      order.sort();
      for (let rank = 0; rank < order.length; rank++) {
        const i = order[rank] % (block * block);
        const dot = (top + Math.floor(i / wide)) * columns + left + (i % wide);
        if (shares[dot] > (rank + 0.5) / order.length) out[dot] = 1;
      }
    }
  }
  return out;
}

/** A number below block² for a dot of a block, without order. */
function chanceOf(i: number): number {
  return (Math.imul(i ^ (i >>> 5), 2654435761) >>> 8) % (block * block);
}
