/** Words as they are searched: without accents, in small letters. */
export function plainWords(text: string): string {
  return text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
}
