import { converter } from 'culori';
import type { Pixels } from '../../document/pixels.ts';

/** A colour by its channels, 0 to 255. */
export type Rgb = readonly [number, number, number];

/** Colours are counted in boxes of 8 levels a side: this many bits of each channel are dropped. */
const boxBits = 3;
const boxesAcross = 256 >> boxBits;
/** How many boxes there are. */
export const colourBoxes = boxesAcross ** 3;
/** Colours nearer than this in CIELAB are one. */
const leastDistance = 7;
/** A colour of a smaller share of the picture is an edge or a speck. */
const leastShare = 0.0015;
/** The shades of a colour lie so near to its commonest, in CIELAB. */
const shadesWithin = 6;
const rounds = 12;

const toLab = converter('lab65');

/** Shades of a picture that lie in one box of the colours. */
interface Box {
  readonly lab: Rgb;
  readonly rgb: Rgb;
  readonly count: number;
}

/**
 * The colours that a picture is of: k-means over CIELAB (Lloyd 1982), begun with those that are common and far from each
 * other, so that the same picture always gives the same ones.
 *
 * @param most how many are wanted at most
 * @param counts which pixels count
 * @returns the commonest first; fewer where there are no more
 */
export function paletteOf(pixels: Pixels, most: number, counts: (pixel: number) => boolean): Rgb[] {
  const boxes = boxesOf(pixels, counts);
  const whole = boxes.reduce((sum, { count }) => sum + count, 0);
  let centres = farApart(boxes, most);
  let clusters: Box[][] = [];
  for (let round = 0; round < rounds; round++) {
    clusters = centres.map(() => []);
    for (const box of boxes) clusters[nearestIn(centres, box.lab)].push(box);
    centres = centres.map((centre, i) => meanLab(clusters[i]) ?? centre);
  }
  return clusters
    .map((cluster) => ({ cluster, count: cluster.reduce((sum, { count }) => sum + count, 0) }))
    .filter(({ count }) => count >= leastShare * whole)
    .sort((a, b) => b.count - a.count)
    .map(({ cluster }) => commonShade(cluster));
}

/** The lightness of a colour in CIELAB, 0 to 100. */
export function lightnessOf([r, g, b]: Rgb): number {
  return toLab({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 }).l;
}

function boxesOf({ rgb }: Pixels, counts: (pixel: number) => boolean): Box[] {
  const sums = new Float64Array(4 * colourBoxes);
  for (let pixel = 0, k = 0; k < rgb.length; pixel++, k += 3) {
    if (!counts(pixel)) continue;
    const box = 4 * boxOfColour(rgb[k], rgb[k + 1], rgb[k + 2]);
    sums[box] += rgb[k];
    sums[box + 1] += rgb[k + 1];
    sums[box + 2] += rgb[k + 2];
    sums[box + 3]++;
  }
  const boxes: Box[] = [];
  for (let box = 0; box < sums.length; box += 4) {
    const count = sums[box + 3];
    if (count === 0) continue;
    const mean: Rgb = [sums[box] / count, sums[box + 1] / count, sums[box + 2] / count];
    const { l, a, b } = toLab({ mode: 'rgb', r: mean[0] / 255, g: mean[1] / 255, b: mean[2] / 255 });
    boxes.push({ lab: [l, a, b], rgb: mean, count });
  }
  return boxes;
}

/** In which box a colour is counted. */
export function boxOfColour(r: number, g: number, b: number): number {
  return ((r >> boxBits) * boxesAcross + (g >> boxBits)) * boxesAcross + (b >> boxBits);
}

/** Colours to begin with: each the one that most pixels have, weighed by how far it is from those before. */
function farApart(boxes: readonly Box[], most: number): Rgb[] {
  const centres: Rgb[] = [];
  const distances = boxes.map(() => 100);
  while (centres.length < Math.min(most, boxes.length)) {
    let best = -1;
    let bestWeight = 0;
    for (const [i, { count }] of boxes.entries()) {
      const weight = distances[i] >= leastDistance ? count * distances[i] ** 2 : 0;
      if (weight > bestWeight) [best, bestWeight] = [i, weight];
    }
    if (best < 0) break;
    const { lab } = boxes[best];
    centres.push(lab);
    for (const [i, box] of boxes.entries()) distances[i] = Math.min(distances[i], distanceOf(lab, box.lab));
  }
  return centres;
}

/** How far apart two colours are in CIELAB. */
function distanceOf(a: Rgb, b: Rgb): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

function nearestIn(centres: readonly Rgb[], lab: Rgb): number {
  let nearest = 0;
  for (let i = 1; i < centres.length; i++) {
    if (distanceOf(centres[i], lab) < distanceOf(centres[nearest], lab)) nearest = i;
  }
  return nearest;
}

function meanLab(cluster: readonly Box[]): Rgb | null {
  const whole = cluster.reduce((sum, { count }) => sum + count, 0);
  if (whole === 0) return null;
  return meanOf(cluster, ({ lab }) => lab);
}

/** The mean of the shades near the commonest: those of its edges lie elsewhere. */
function commonShade(cluster: readonly Box[]): Rgb {
  const common = cluster.reduce((best, box) => (box.count > best.count ? box : best));
  const near = cluster.filter(({ lab }) => distanceOf(lab, common.lab) <= shadesWithin);
  return meanOf(near, ({ rgb }) => rgb);
}

function meanOf(boxes: readonly Box[], partOf: (box: Box) => Rgb): Rgb {
  const sums = [0, 0, 0, 0];
  for (const box of boxes) {
    partOf(box).forEach((value, i) => {
      sums[i] += value * box.count;
    });
    sums[3] += box.count;
  }
  return [sums[0] / sums[3], sums[1] / sums[3], sums[2] / sums[3]];
}
