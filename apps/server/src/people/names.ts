/** A name as it is compared: in small letters, with single blanks, however its signs are put together. */
export function nameKeyOf(name: string): string {
  return name.normalize('NFKC').trim().replace(/\s+/g, ' ').toLowerCase();
}
