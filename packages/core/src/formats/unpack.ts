import { FileRefused, largestFile } from './refusal.ts';

/** Whether bytes are compressed as gzip does it, as `.svgz` files are. */
export function isGzip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x1f && bytes[1] === 0x8b;
}

/**
 * Unpacks gzip.
 * @throws FileRefused when it is damaged, or holds more than is taken of a file
 */
export async function unpackGzip(bytes: Uint8Array): Promise<Uint8Array> {
  const stream = new Blob([bytes as BlobPart]).stream().pipeThrough(new DecompressionStream('gzip'));
  const reader = stream.getReader();
  const parts: Uint8Array[] = [];
  let size = 0;
  try {
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      size += part.value.length;
      if (size > largestFile) throw new FileRefused(tooLarge);
      parts.push(part.value);
    }
  } catch (error) {
    if (error instanceof FileRefused) throw error;
    throw new FileRefused('The file is compressed and damaged: it cannot be unpacked. Save or send it again.');
  } finally {
    await reader.cancel().catch(() => undefined);
  }
  const out = new Uint8Array(size);
  let offset = 0;
  for (const part of parts) {
    out.set(part, offset);
    offset += part.length;
  }
  return out;
}

const tooLarge = `Unpacked, the file is larger than the ${largestFile / 1024 / 1024} MB that Lambent takes. Leave pictures out, or split it.`;
