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

/** Whether a JPEG lacks the mark at its end; within its compressed data that mark cannot stand. */
export function isCutShort(bytes: Uint8Array): boolean {
  let offset = 2;
  for (const { end } of jpegSegments(bytes)) offset = end;
  for (let i = bytes.length - 2; i >= offset; i--) if (bytes[i] === 0xff && bytes[i + 1] === 0xd9) return false;
  return true;
}
