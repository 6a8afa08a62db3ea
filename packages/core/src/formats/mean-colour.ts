/** Where along a gradient a colour stands, 0 to 1, and its channels: red, green, blue 0 to 255, alpha 0 to 1. */
export interface Stop {
  readonly offset: number;
  readonly rgba: readonly number[];
}

/** The mean over a gradient's length: each segment between two stops weighs as much as it is long. */
export function meanOfStops(stops: readonly Stop[]): number[] {
  const ends = [{ ...stops[0], offset: 0 }, ...stops, { ...stops[stops.length - 1], offset: 1 }];
  const sums = [0, 0, 0, 0];
  for (let i = 1; i < ends.length; i++) {
    const share = ends[i].offset - ends[i - 1].offset;
    for (let k = 0; k < 4; k++) sums[k] += (share * (ends[i].rgba[k] + ends[i - 1].rgba[k])) / 2;
  }
  return sums;
}

/** The mean of colours that weigh the same; null of none. */
export function meanOf(colours: readonly (readonly number[])[]): number[] | null {
  if (colours.length === 0) return null;
  return [0, 1, 2, 3].map((k) => colours.reduce((sum, rgba) => sum + rgba[k], 0) / colours.length);
}
