import type { Plane } from './blur.ts';

/** So many tiles along each side, and so many levels in the histogram of each. */
const tiles = 8;
const levels = 256;
/** How much steeper than even the mapping of a tile may be at most. */
const steepest = 4;

/**
 * Raises differences between near places: contrast-limited adaptive histogram equalisation (Zuiderveld, 1994). Between
 * the middles of tiles their mappings are mixed.
 *
 * @param plane greys from 0 to 1; they are changed in place.
 * @param amount 0 leaves all as it is, 1 raises most.
 */
export function raiseLocalContrast({ columns, rows, values, shown }: Plane, amount: number): void {
  if (amount <= 0 || values.length === 0) return;
  const [across, down] = [Math.min(tiles, columns), Math.min(tiles, rows)];
  const limit = 1 + (steepest - 1) * amount;
  const mappings: Float32Array[] = [];
  for (let ty = 0; ty < down; ty++) {
    for (let tx = 0; tx < across; tx++) {
      const [fromX, toX] = [Math.floor((tx * columns) / across), Math.floor(((tx + 1) * columns) / across)];
      const [fromY, toY] = [Math.floor((ty * rows) / down), Math.floor(((ty + 1) * rows) / down)];
      const histogram = new Float64Array(levels);
      for (let y = fromY; y < toY; y++) {
        for (let x = fromX; x < toX; x++) {
          const i = y * columns + x;
          if (!shown || shown[i] > 0) histogram[levelOf(values[i])]++;
        }
      }
      mappings.push(mappingOf(histogram, limit));
    }
  }
  for (let y = 0; y < rows; y++) {
    const [top, bottom, v] = between(((y + 0.5) * down) / rows - 0.5, down);
    for (let x = 0; x < columns; x++) {
      const [left, right, u] = between(((x + 0.5) * across) / columns - 0.5, across);
      const i = y * columns + x;
      const value = values[i];
      const mapped = (tx: number, ty: number) => read(mappings[ty * across + tx], value);
      values[i] =
        (1 - v) * ((1 - u) * mapped(left, top) + u * mapped(right, top)) +
        v * ((1 - u) * mapped(left, bottom) + u * mapped(right, bottom));
    }
  }
}

const levelOf = (value: number) => Math.min(levels - 1, Math.floor(value * levels));

/** The two tiles whose middles a place lies between, and how far it is from the first to the second. */
function between(place: number, count: number): readonly [number, number, number] {
  const first = Math.floor(place);
  return [Math.max(0, first), Math.min(count - 1, first + 1), place - first];
}

/** The share of a tile at or below each level, once what is above the limit is spread over all; one more than levels. */
function mappingOf(histogram: Float64Array, limit: number): Float32Array {
  const mapping = new Float32Array(levels + 1);
  const count = histogram.reduce((sum, number) => sum + number, 0);
  if (count === 0) return mapping.map((_, level) => level / levels);
  const most = (limit * count) / levels;
  const over = histogram.reduce((sum, number) => sum + Math.max(0, number - most), 0);
  let sum = 0;
  for (let level = 0; level < levels; level++) {
    sum += Math.min(most, histogram[level]) + over / levels;
    mapping[level + 1] = sum / count;
  }
  return mapping;
}

/** A mapping's value, between its levels. */
function read(mapping: Float32Array, value: number): number {
  const place = value * levels;
  const level = Math.min(levels - 1, Math.floor(place));
  return mapping[level] + (mapping[level + 1] - mapping[level]) * (place - level);
}
