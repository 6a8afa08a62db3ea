/*
 * Reads BMP, uncompressed, of 1, 4, 8, 16, 24 and 32 bits: bytes in a grid. The package for it asks for
 * Node's Buffer, which browsers do not have.
 */

/** @throws RangeError on compressed or damaged files */
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
  if (compression !== 0 && compression !== 3) throw new RangeError('decodeBmp: compressed');
  const palette = 14 + header;
  const stride = Math.ceil((width * bits) / 32) * 4;
  if (width <= 0 || start + stride * height > bytes.length) throw new RangeError('decodeBmp: cut short');
  const data = new Uint8Array(width * height * 3);
  // Sixteen bits hold five each, or with masks of their own five, six, five.
  const wideGreen =
    bits === 16 && compression === 3 && view.getUint32(palette - (header > 40 ? header - 44 : 0), true) === 0x7e0;
  for (let y = 0; y < height; y++) {
    const row = start + stride * (rows > 0 ? height - 1 - y : y);
    for (let x = 0; x < width; x++) {
      const to = 3 * (y * width + x);
      if (bits <= 8) {
        const byte = bytes[row + ((x * bits) >> 3)];
        const index = (byte >> (8 - bits - ((x * bits) & 7))) & ((1 << bits) - 1);
        const entry = palette + 4 * index;
        data.set([bytes[entry + 2], bytes[entry + 1], bytes[entry]], to);
      } else if (bits === 16) {
        const value = view.getUint16(row + 2 * x, true);
        const five = (shift: number) => Math.round((((value >> shift) & 31) * 255) / 31);
        data.set(
          wideGreen ? [five(11), Math.round((((value >> 5) & 63) * 255) / 63), five(0)] : [five(10), five(5), five(0)],
          to,
        );
      } else {
        const from = row + (bits / 8) * x;
        data.set([bytes[from + 2], bytes[from + 1], bytes[from]], to);
      }
    }
  }
  return { width, height, channels: 3, depth: 8, data };
}
