/** A face drawn by single lines, for fast scoring: it has no inside. */
export interface StrokeFont {
  /** How high capitals are, in the font's own unit. */
  readonly capitals: number;
  /** By character: how far the pen moves, and its lines as points x, y, x, y… with y up from the baseline. */
  readonly glyphs: Readonly<
    Record<string, { readonly advance: number; readonly lines: readonly (readonly number[])[] }>
  >;
}

/** A font of strokes as a file. */
export function strokeFontBytes(font: StrokeFont): Uint8Array {
  return new TextEncoder().encode(JSON.stringify(font));
}

/** Whether a font file is of single lines: ours, in JSON. */
export function isStrokeFont(bytes: Uint8Array): boolean {
  return bytes[0] === '{'.charCodeAt(0);
}

/** A font of strokes from its file, which ships with the app and is not checked. */
export function parseStrokeFont(bytes: Uint8Array): StrokeFont {
  return JSON.parse(new TextDecoder().decode(bytes)) as StrokeFont;
}
