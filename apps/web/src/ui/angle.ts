/** Reads an angle as people type it, in degrees. */
export function parseAngle(text: string) {
  const value = Number(text.replace(',', '.').replace('°', '').trim());
  return Number.isFinite(value) && text.trim() !== ''
    ? ({ ok: true, value } as const)
    : ({ ok: false, reason: 'Type degrees, for example 15 or -7.5.' } as const);
}
