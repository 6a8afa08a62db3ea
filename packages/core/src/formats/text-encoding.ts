/** Code pages by the number that DXF files give, where they are not `windows-` and that number. */
const codePages: Readonly<Record<string, string>> = { 932: 'shift_jis', 936: 'gbk', 949: 'euc-kr', 950: 'big5' };

/** Text of a DXF file: UTF-8, or else in the code page that its header names (`$DWGCODEPAGE`). */
export function decodeDxf(bytes: Uint8Array): string {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 4000));
  const page = /\$DWGCODEPAGE\s+3\s+(?:ANSI_|DOS)?(\d+)/i.exec(head)?.[1];
  return decodeText(bytes, page === undefined ? undefined : (codePages[page] ?? `windows-${page}`));
}

/** What bytes 0x80 to 0x9F stand for in Windows’ code page 1252, which not every engine’s own decoder knows. */
const windows1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/** Bytes in an encoding by its name. @throws RangeError where there is none of that name, TypeError where bytes make none */
function decoded(bytes: Uint8Array, label: string): string {
  const decoder = new TextDecoder(label, { fatal: true });
  const text = decoder.decode(bytes);
  if (decoder.encoding !== 'windows-1252') return text;
  return text.replace(/[\u0080-\u009f]/g, (character) => windows1252[character.charCodeAt(0) - 0x80]);
}

/** Text in the encoding its byte order mark or XML declaration names; UTF-8 where there is none, else `otherwise`. */
export function decodeText(bytes: Uint8Array, otherwise = 'windows-1252'): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const start = String.fromCharCode(...bytes.subarray(0, 120));
  const declared = /^<\?xml[^>]*\sencoding\s*=\s*["']([\w.-]+)["']/.exec(start)?.[1];
  try {
    // A declaration that can be read as single bytes is not one of UTF-16.
    const label = declared && !/^utf-?16/i.test(declared) ? declared : 'utf-8';
    return decoded(bytes, label);
  } catch {
    return decodedOr1252(bytes, otherwise);
  }
}

function decodedOr1252(bytes: Uint8Array, label: string): string {
  try {
    return decoded(bytes, label);
  } catch {
    return decoded(bytes, 'windows-1252');
  }
}
