/** A picture unpacked: three bytes a pixel, red, green, blue, from the top left. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly rgb: Uint8Array;
}

/** Gives the pixels of a job's pictures by their ids; null for those that are not at hand. */
export type PixelsOf = (pictureId: string) => Pixels | null;
