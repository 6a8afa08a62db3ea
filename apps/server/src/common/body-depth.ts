/** JSON that is nested deeper than this is nothing that Lambent knows. */
export const deepestJson = 40;

/**
 * How deep JSON is nested, found without parsing it: parsers and validators recurse, and run out of stack on what is
 * nested a hundred thousand times.
 * @param bytes UTF-8; what is no JSON is counted as if it were
 */
export function depthOfJson(bytes: Uint8Array): number {
  let depth = 0;
  let deepest = 0;
  let inText = false;
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i];
    if (inText) {
      if (byte === 0x5c) i++;
      else if (byte === 0x22) inText = false;
    } else if (byte === 0x22) inText = true;
    else if (byte === 0x5b || byte === 0x7b) deepest = Math.max(deepest, ++depth);
    else if (byte === 0x5d || byte === 0x7d) depth--;
  }
  return deepest;
}
