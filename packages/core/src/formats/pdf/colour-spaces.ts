/** Words for colour spaces that are not RGB or grey, by how a PDF names them. */
const names: readonly (readonly [mark: RegExp, words: string])[] = [
  [/\/Separation\b|\/DeviceN\b/, 'spot colours'],
  [/\/DeviceCMYK\b|(?:^|\s)(?:-?[\d.]+\s+){4}[kK](?=\s|$)/m, 'CMYK'],
  [/\/ICCBased\b/, 'given by an ICC profile'],
];

/** How a PDF's colours are given, where it is not plainly in RGB or grey; null where it is. */
export function convertedColours(texts: readonly string[]): string | null {
  const found = names.filter(([mark]) => texts.some((text) => mark.test(text))).map(([, words]) => words);
  return found.length === 0 ? null : found.join(' and ');
}
