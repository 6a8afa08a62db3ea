/** Text in the encoding its byte order mark or XML declaration names; UTF-8 where there is none, else Latin 1. */
export function decodeText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const start = String.fromCharCode(...bytes.subarray(0, 120));
  const declared = /^<\?xml[^>]*\sencoding\s*=\s*["']([\w.-]+)["']/.exec(start)?.[1];
  try {
    // A declaration that can be read as single bytes is not one of UTF-16.
    const label = declared && !/^utf-?16/i.test(declared) ? declared : 'utf-8';
    return new TextDecoder(label, { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
