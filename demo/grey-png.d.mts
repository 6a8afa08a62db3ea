/** A made-up picture, of grey values row by row, as a PNG file. */
export function greyPng(picture: {
  readonly width: number;
  readonly height: number;
  readonly greys: Uint8Array;
}): Promise<Buffer>;
