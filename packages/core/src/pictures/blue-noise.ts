/** So many dots along each side: it is repeated beyond. */
export const noiseSize = 128;
const count = noiseSize * noiseSize;
/** The standard deviation by which dots push each other apart, and how far that counts, in dots. */
const sigma = 1.9;
const reach = 9;
/** The share of dots that the first pattern has. */
const firstShare = 0.1;

let known: Float32Array | null = null;

/**
 * Thresholds of blue noise, by the void-and-cluster method (Ulichney, 1993): where as many dots burn as a share says,
 * they lie as evenly apart as they can, without a pattern. The same at every call.
 *
 * @returns for each dot of the tile, row by row, the share from which on it burns; evenly from 0 to 1
 */
export function blueNoise(): Float32Array {
  known ??= ranksToThresholds(voidAndCluster());
  return known;
}

function ranksToThresholds(ranks: Int32Array): Float32Array {
  return Float32Array.from(ranks, (rank) => (rank + 0.5) / count);
}

function voidAndCluster(): Int32Array {
  const field = new Field();
  // Any pattern will do to begin with: it is evened out.
  let seed = 1;
  const first = Math.floor(count * firstShare);
  while (field.ones < first) {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    const place = seed % count;
    if (!field.isOne[place]) field.put(place);
  }
  for (;;) {
    const crowded = field.tightestCluster();
    field.take(crowded);
    const empty = field.largestVoid();
    field.put(empty);
    if (empty === crowded) break;
  }
  const ranks = new Int32Array(count);
  const start = field.copy();
  for (let rank = first - 1; rank >= 0; rank--) {
    const place = field.tightestCluster();
    field.take(place);
    ranks[place] = rank;
  }
  // Of more than half, the tightest cluster of those that do not burn is the largest void of those that do.
  for (let rank = first; rank < count; rank++) {
    const place = start.largestVoid();
    start.put(place);
    ranks[place] = rank;
  }
  return ranks;
}

/** Ones on a torus, and how crowded each place is by them. */
class Field {
  readonly isOne: Uint8Array;
  private readonly crowding: Float64Array;
  ones = 0;

  constructor(isOne = new Uint8Array(count), crowding = new Float64Array(count), ones = 0) {
    this.isOne = isOne;
    this.crowding = crowding;
    this.ones = ones;
  }

  copy(): Field {
    return new Field(this.isOne.slice(), this.crowding.slice(), this.ones);
  }

  put(place: number): void {
    this.isOne[place] = 1;
    this.ones++;
    this.crowd(place, 1);
  }

  take(place: number): void {
    this.isOne[place] = 0;
    this.ones--;
    this.crowd(place, -1);
  }

  private crowd(place: number, sign: number): void {
    const [x, y] = [place % noiseSize, Math.floor(place / noiseSize)];
    for (let dy = -reach; dy <= reach; dy++) {
      const row = ((y + dy + noiseSize) % noiseSize) * noiseSize;
      for (let dx = -reach; dx <= reach; dx++) {
        this.crowding[row + ((x + dx + noiseSize) % noiseSize)] +=
          sign * pushes[(dy + reach) * (2 * reach + 1) + dx + reach];
      }
    }
  }

  tightestCluster(): number {
    let [found, most] = [-1, -Infinity];
    for (let place = 0; place < count; place++) {
      if (this.isOne[place] && this.crowding[place] > most) [found, most] = [place, this.crowding[place]];
    }
    return found;
  }

  largestVoid(): number {
    let [found, least] = [-1, Infinity];
    for (let place = 0; place < count; place++) {
      if (!this.isOne[place] && this.crowding[place] < least) [found, least] = [place, this.crowding[place]];
    }
    return found;
  }
}

/** How much a one crowds each place around it. */
const pushes = Float64Array.from({ length: (2 * reach + 1) ** 2 }, (_, i) => {
  const [dx, dy] = [(i % (2 * reach + 1)) - reach, Math.floor(i / (2 * reach + 1)) - reach];
  return Math.exp(-(dx * dx + dy * dy) / (2 * sigma * sigma));
});
