/** A picture unpacked: three bytes a pixel, red, green, blue, from the top left; what can be seen through lies over white. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly rgb: Uint8Array;
  /** How opaque each pixel is, 0 to 255; null where all of all are. */
  readonly alpha?: Uint8Array | null;
}

/** Gives the pixels of a job's pictures by their ids; null for those that are not at hand. */
export type PixelsOf = (pictureId: string) => Pixels | null;
