/**
 * A PDF with a new cross-reference table, made from the objects that stand in the file (PDF 1.7, 7.5.4). It is for a
 * file whose own is missing or wrong.
 *
 * @returns null where no catalogue of pages stands in the open
 */
export function withRebuiltTable(bytes: Uint8Array): Uint8Array | null {
  // One character a byte, so that places in the text are places in the file.
  const text = new TextDecoder('latin1').decode(bytes);
  const places = new Map<number, { offset: number; generation: number }>();
  for (const match of text.matchAll(/(?:^|[\r\n\s])(\d{1,7})\s+(\d{1,5})\s+obj\b/g)) {
    const offset = match.index + match[0].search(/\d/);
    // Of an object that was saved anew, the last one counts.
    places.set(Number(match[1]), { offset, generation: Number(match[2]) });
  }
  const root = [...places].find(([, { offset }]) => {
    const end = text.indexOf('endobj', offset);
    return /\/Type\s*\/Catalog\b/.test(text.slice(offset, end < 0 ? offset + 2000 : end));
  });
  if (!root) return null;
  const size = Math.max(...places.keys()) + 1;
  const sections = [...places]
    .sort(([a], [b]) => a - b)
    .map(
      ([number, { offset, generation }]) =>
        `${number} 1\n${String(offset).padStart(10, '0')} ${String(generation).padStart(5, '0')} n \n`,
    );
  const table = [
    `\nxref\n0 1\n0000000000 65535 f \n${sections.join('')}`,
    `trailer\n<< /Size ${size} /Root ${root[0]} ${root[1].generation} R >>\n`,
    `startxref\n${bytes.length + 1}\n%%EOF\n`,
  ].join('');
  const out = new Uint8Array(bytes.length + table.length);
  out.set(bytes);
  out.set(new TextEncoder().encode(table), bytes.length);
  return out;
}
