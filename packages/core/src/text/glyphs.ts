import type { Matrix } from '../geometry/matrix.ts';
import { applyTo } from '../geometry/matrix.ts';
import type { PathBuilder } from '../geometry/path.ts';
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
  const found = face.glyph(character);
  if (!found) return { character, known: false, advance: size / 2, draw: () => undefined };
  const { font, glyph } = found;
  const scale = size / font.unitsPerEm;
  return {
    character,
    known: true,
    advance: (glyph.advanceWidth ?? 0) * scale,
    draw(builder, place) {
      const to = (x = 0, y = 0) => applyTo(place, x, y);
      for (const step of glyph.getPath(0, 0, size).commands) {
        if (step.type === 'Z') {
          builder.close();
          continue;
        }
        const { x, y } = to(step.x, step.y);
        if (step.type === 'M') builder.moveTo(x, y);
        else if (step.type === 'L') builder.lineTo(x, y);
        else if (step.type === 'Q') {
          const q = to(step.x1, step.y1);
          builder.quadraticTo(q.x, q.y, x, y);
        } else {
          const p = to(step.x1, step.y1);
          const q = to(step.x2, step.y2);
          builder.cubicTo(p.x, p.y, q.x, q.y, x, y);
        }
      }
    },
  };
}

/** How much closer together or further apart two neighbours stand than their advances say. */
export function kerning(face: Face, left: string, right: string, size: number): number {
  const a = face.glyph(left);
  const b = face.glyph(right);
  if (!a || !b || a.font !== b.font) return 0;
  return (a.font.getKerningValue(a.glyph, b.glyph) * size) / a.font.unitsPerEm;
}

/** How high the face's capitals are as a share of its size. */
export function capHeight(face: Face): number {
  const h = face.glyph('H');
  if (!h) return 0.7;
  return (h.glyph.getBoundingBox().y2 || 0.7 * h.font.unitsPerEm) / h.font.unitsPerEm;
}
