import type { Matrix } from '../geometry/paths/matrix.ts';
import type { PathBuilder } from '../geometry/paths/path.ts';
import type { Face } from './fonts.ts';

/** A character set in a face: its advance and outline at a size. */
export interface SetGlyph {
  readonly character: string;
  /** Whether the face has the character; a missing one is as wide as half its size, and draws nothing. */
  readonly known: boolean;
  /** How far the pen moves, in the unit of `size`. */
  readonly advance: number;
  /** Adds its outline, which stands at (0, 0) on the baseline, y down, mapped by `place`. */
  draw(builder: PathBuilder, place: Matrix): void;
}

/** @param size the font's size: how high an em is */
export function setGlyph(face: Face, character: string, size: number): SetGlyph {
  const glyph = face.glyph(character);
  if (!glyph) return { character, known: false, advance: size / 2, draw: () => undefined };
  return {
    character,
    known: true,
    advance: glyph.advance * size,
    draw: (builder, place) => glyph.draw(builder, size, place),
  };
}

/** How much closer together or further apart two neighbours stand than their advances say. */
export function kerning(face: Face, left: string, right: string, size: number): number {
  const a = face.glyph(left);
  const b = face.glyph(right);
  return a && b ? a.kernTo(b) * size : 0;
}

/** How high the face's capitals are as a share of its size. */
export function capHeight(face: Face): number {
  return face.glyph('H')?.top || 0.7;
}
