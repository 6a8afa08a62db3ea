/*
 * WebP files of several pictures one after another: what unpacks WebP takes a single one.
 */

const word = (bytes: Uint8Array, offset: number) => String.fromCharCode(...bytes.subarray(offset, offset + 4));

interface Chunk {
  readonly name: string;
  readonly from: number;
  readonly to: number;
}

function chunksOf(bytes: Uint8Array, from: number, to: number): Chunk[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const out: Chunk[] = [];
  for (let offset = from; offset + 8 <= to; ) {
    const size = view.getUint32(offset + 4, true);
    const end = Math.min(to, offset + 8 + size + (size & 1));
    out.push({ name: word(bytes, offset), from: offset, to: end });
    offset = end;
  }
  return out;
}

/** Whether a WebP file holds several pictures. */
export function isAnimatedWebp(bytes: Uint8Array): boolean {
  return chunksOf(bytes, 12, bytes.length).some(({ name }) => name === 'ANMF');
}

/** The colour profile of a WebP file; null where it has none. */
export function profileOfWebp(bytes: Uint8Array): Uint8Array | null {
  const profile = chunksOf(bytes, 12, bytes.length).find(({ name }) => name === 'ICCP');
  return profile ? bytes.subarray(profile.from + 8, profile.to) : null;
}

/** The first picture of an animation as a WebP file of its own; any other file as it is. */
export function firstFrame(bytes: Uint8Array): Uint8Array {
  const frame = chunksOf(bytes, 12, bytes.length).find(({ name }) => name === 'ANMF');
  if (!frame) return bytes;
  // The frame's own header: its place, its size, how long it shows; 16 bytes.
  const start = frame.from + 8;
  const parts = chunksOf(bytes, start + 16, frame.to).filter(({ name }) => /^(?:ALPH|VP8 |VP8L)$/.test(name));
  const body = parts.flatMap((part) => [...bytes.subarray(part.from, part.to)]);
  const letters = (text: string) => [...text].map((letter) => letter.charCodeAt(0));
  const size = (value: number) => [value & 255, (value >> 8) & 255, (value >> 16) & 255, (value >> 24) & 255];
  const extended = parts.some(({ name }) => name === 'ALPH')
    ? [...letters('VP8X'), ...size(10), 0x10, 0, 0, 0, ...bytes.subarray(start + 6, start + 12)]
    : [];
  const content = [...letters('WEBP'), ...extended, ...body];
  return Uint8Array.from([...letters('RIFF'), ...size(content.length), ...content]);
}
