import { FileRefused } from '../refusal.ts';

/*
 * Reads BMP, uncompressed, of 1, 4, 8, 16, 24 and 32 bits: bytes in a grid. The package for it asks for
 * Node's Buffer, which browsers do not have.
 */

/**
 * @throws FileRefused when it is compressed
 * @throws RangeError when it is damaged
 */
export function decodeBmp(bytes: Uint8Array): {
  width: number;
  height: number;
  channels: 3;
  depth: 8;
  data: Uint8Array;
} {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const start = view.getUint32(10, true);
  const header = view.getUint32(14, true);
  const width = view.getInt32(18, true);
  const rows = view.getInt32(22, true);
  const height = Math.abs(rows);
  const bits = view.getUint16(28, true);
  const compression = view.getUint32(30, true);
  const masked = compression === 3 || compression === 6;
  if (compression !== 0 && !masked) {
    throw new FileRefused('The picture is a compressed BMP, which is not read here. Save it as PNG.');
  }
  const palette = 14 + header;
  const stride = Math.ceil((width * bits) / 32) * 4;
  if (width <= 0 || start + stride * height > bytes.length) throw new RangeError('decodeBmp: cut short');
  const data = new Uint8Array(width * height * 3);
  // The masks follow the first 40 bytes of the header, whatever its length.
  const channels = (masked ? [54, 58, 62].map((offset) => view.getUint32(offset, true)) : usualMasks(bits)).map(
    (mask) => ({ mask, shift: mask === 0 ? 0 : 31 - Math.clz32(mask & -mask) }),
  );
  for (let y = 0; y < height; y++) {
    const row = start + stride * (rows > 0 ? height - 1 - y : y);
    for (let x = 0; x < width; x++) {
      const to = 3 * (y * width + x);
      if (bits <= 8) {
        const byte = bytes[row + ((x * bits) >> 3)];
        const index = (byte >> (8 - bits - ((x * bits) & 7))) & ((1 << bits) - 1);
        const entry = palette + 4 * index;
        data.set([bytes[entry + 2], bytes[entry + 1], bytes[entry]], to);
      } else if (bits !== 24) {
        const value = bits === 16 ? view.getUint16(row + 2 * x, true) : view.getUint32(row + 4 * x, true);
        data.set(
          channels.map(({ mask, shift }) =>
            mask === 0 ? 0 : Math.round((((value & mask) >>> shift) * 255) / (mask >>> shift)),
          ),
          to,
        );
      } else {
        const from = row + 3 * x;
        data.set([bytes[from + 2], bytes[from + 1], bytes[from]], to);
      }
    }
  }
  return { width, height, channels: 3, depth: 8, data };
}

/** Where red, green and blue are in a pixel that does not say: five bits each, or eight. */
function usualMasks(bits: number): number[] {
  return bits === 16 ? [0x7c00, 0x3e0, 0x1f] : [0xff0000, 0xff00, 0xff];
}
