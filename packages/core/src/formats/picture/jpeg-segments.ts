/** A part of a JPEG file ahead of its pixels: its mark, and where its data begins and ends, in bytes. */
export interface JpegSegment {
  readonly mark: number;
  readonly start: number;
  readonly end: number;
}

/** The segments of a JPEG file before its pixels (ISO 10918-1, B.1). A damaged file ends where it makes no sense. */
export function* jpegSegments(bytes: Uint8Array): Generator<JpegSegment> {
  for (let offset = 2; offset + 4 < bytes.length && bytes[offset] === 0xff && bytes[offset + 1] !== 0xda; ) {
    const end = offset + 2 + bytes[offset + 2] * 256 + bytes[offset + 3];
    yield { mark: bytes[offset + 1], start: offset + 4, end };
    offset = end;
  }
}
