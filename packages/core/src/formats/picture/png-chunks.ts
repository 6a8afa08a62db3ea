/** A part of a PNG file: its name, and where its data begins and how long that is, in bytes. */
export interface PngChunk {
  readonly name: string;
  readonly start: number;
  readonly length: number;
}

/** The chunks of a PNG file before its pixels (PNG 1.2, 3.2). A damaged file ends where it makes no sense. */
export function* pngChunks(bytes: Uint8Array): Generator<PngChunk> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let offset = 8; offset + 12 <= bytes.length; ) {
    const length = view.getUint32(offset);
    const name = String.fromCharCode(...bytes.subarray(offset + 4, offset + 8));
    if (name === 'IDAT') return;
    yield { name, start: offset + 8, length };
    offset += 12 + length;
  }
}

/** Whether a PNG has a chunk of a name. */
export function hasPngChunk(bytes: Uint8Array, wanted: string): boolean {
  for (const { name } of pngChunks(bytes)) if (name === wanted) return true;
  return false;
}
