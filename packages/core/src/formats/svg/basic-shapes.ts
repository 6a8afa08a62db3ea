import type { FillRule } from '../../document/item.ts';
import type { Shape } from '../../document/shape.ts';
import { outlineOf, rectangleOf } from '../../document/shapes.ts';
import { type Box, boxHeight, boxWidth } from '../../geometry/paths/box.ts';
import { translation } from '../../geometry/paths/matrix.ts';
import { type Path, PathBuilder, transformPath } from '../../geometry/paths/path.ts';
import { readPathData } from './path-data.ts';
import { type Axis, type LengthContext, lengthInUserUnits } from './values.ts';

/*
 * The basic shapes that CSS clips to (CSS Shapes 1, section 3), measured against a box.
 */

export interface BasicShape {
  readonly path: Path;
  readonly rule: FillRule;
}

/** The boxes that a basic shape may be measured against, in user units. */
export type ReferenceBox = 'fill-box' | 'stroke-box' | 'view-box';

const boxNames: Readonly<Record<string, ReferenceBox>> = {
  'fill-box': 'fill-box',
  'content-box': 'fill-box',
  'padding-box': 'fill-box',
  'stroke-box': 'stroke-box',
  'border-box': 'stroke-box',
  'margin-box': 'stroke-box',
  'view-box': 'view-box',
};

/**
 * Reads a basic shape, or a box alone.
 * @param boxOf gives a reference box
 * @returns null where it makes no sense
 */
export function readBasicShape(
  text: string,
  context: LengthContext,
  boxOf: (name: ReferenceBox) => Box,
): BasicShape | null {
  let box: Box | null = null;
  let shape: string | null = null;
  for (const word of wordsOf(text)) {
    const name = boxNames[word.toLowerCase()];
    if (name) box = boxOf(name);
    else if (shape === null) shape = word;
    else return null;
  }
  // For what has no layout of its own, the usual box is the one around its stroke.
  const reference = box ?? boxOf('stroke-box');
  if (shape === null) return box && { path: outlineOf(rectangleOf(box)), rule: 'nonzero' };
  const match = /^([a-z]+)\(([\s\S]*)\)$/i.exec(shape);
  return match && new Reader(context, reference).read(match[1].toLowerCase(), match[2].trim());
}

class Reader {
  private readonly width: number;
  private readonly height: number;
  private readonly context: LengthContext;

  constructor(
    context: LengthContext,
    private readonly box: Box,
  ) {
    this.width = boxWidth(box);
    this.height = boxHeight(box);
    this.context = { ...context, viewportWidth: this.width, viewportHeight: this.height };
  }

  read(name: string, said: string): BasicShape | null {
    switch (name) {
      case 'circle':
      case 'ellipse':
        return this.round(name, wordsOf(said));
      case 'inset':
      case 'rect':
      case 'xywh':
        return this.rectangle(name, wordsOf(said));
      case 'polygon':
        return this.polygon(said);
      case 'path':
        return this.pathOf(said);
      default:
        return null;
    }
  }

  private length(word: string | undefined, axis: Axis): number | null {
    return lengthInUserUnits(word, this.context, axis);
  }

  private shape(shape: Shape, rule: FillRule = 'nonzero'): BasicShape {
    return { path: outlineOf(shape), rule };
  }

  private round(name: 'circle' | 'ellipse', words: readonly string[]): BasicShape | null {
    const split = words.indexOf('at');
    const radii = split < 0 ? words : words.slice(0, split);
    const place = this.position(split < 0 ? [] : words.slice(split + 1));
    if (!place || radii.length > (name === 'circle' ? 1 : 2)) return null;
    const [x, y] = [place[0] - this.box.minX, place[1] - this.box.minY];
    const sides = [Math.abs(x), Math.abs(this.width - x), Math.abs(y), Math.abs(this.height - y)];
    const radius = (word: string | undefined, axis: Axis, own: readonly number[]) => {
      if (word === undefined || word === 'closest-side') return Math.min(...own);
      return word === 'farthest-side' ? Math.max(...own) : this.length(word, axis);
    };
    const circle = name === 'circle';
    const rx = circle ? radius(radii[0], 'diagonal', sides) : radius(radii[0], 'x', sides.slice(0, 2));
    const ry = circle ? rx : radius(radii[1], 'y', sides.slice(2));
    if (rx === null || ry === null) return null;
    return this.shape({ kind: 'ellipse', cx: place[0], cy: place[1], rx, ry });
  }

  /** Where `at` says the middle is, in user units; null where it makes no sense. */
  private position(words: readonly string[]): [x: number, y: number] | null {
    if (words.length > 2) return null;
    const upright = /^(?:top|bottom)$/.test(words[0] ?? '') || /^(?:left|right)$/.test(words[1] ?? '');
    const [across = '50%', down = '50%'] = upright ? [words[1], words[0]] : words;
    const share: Record<string, string> = { left: '0%', top: '0%', center: '50%', right: '100%', bottom: '100%' };
    const x = this.length(share[across] ?? across, 'x');
    const y = this.length(share[down] ?? down, 'y');
    return x === null || y === null ? null : [this.box.minX + x, this.box.minY + y];
  }

  private rectangle(name: string, words: readonly string[]): BasicShape | null {
    const split = words.indexOf('round');
    const sides = split < 0 ? words : words.slice(0, split);
    const corners = split < 0 ? [] : words.slice(split + 1);
    const frame = name === 'inset' ? this.inset(sides) : this.framed(name, sides);
    // Corners that differ from each other, or that are not as high as they are wide, are not read.
    const radius = corners.length === 0 ? 0 : corners.length === 1 ? this.length(corners[0], 'x') : null;
    if (!frame || radius === null) return null;
    const [minX, minY, maxX, maxY] = frame;
    const [width, height] = [Math.max(0, maxX - minX), Math.max(0, maxY - minY)];
    const round = Math.min(radius, width / 2, height / 2);
    return this.shape({
      kind: 'rectangle',
      x: this.box.minX + minX,
      y: this.box.minY + minY,
      width,
      height,
      rx: round,
      ry: round,
    });
  }

  private inset(words: readonly string[]): number[] | null {
    if (words.length < 1 || words.length > 4) return null;
    const [top, right = top, bottom = top, left = right] = words;
    const sides = [this.length(left, 'x'), this.length(top, 'y'), this.length(right, 'x'), this.length(bottom, 'y')];
    if (!sides.every((side) => side !== null)) return null;
    return [sides[0], sides[1], this.width - sides[2], this.height - sides[3]];
  }

  private framed(name: string, words: readonly string[]): number[] | null {
    if (words.length !== 4) return null;
    const axes: Axis[] = name === 'rect' ? ['y', 'x', 'y', 'x'] : ['x', 'y', 'x', 'y'];
    const whole = [0, this.width, this.height, 0];
    const read = words.map((word, i) => (word === 'auto' && name === 'rect' ? whole[i] : this.length(word, axes[i])));
    if (!read.every((side) => side !== null)) return null;
    const [a, b, c, d] = read;
    return name === 'rect' ? [d, a, b, c] : [a, b, a + c, b + d];
  }

  private polygon(said: string): BasicShape | null {
    const { rule, rest } = withRule(said);
    const builder = new PathBuilder();
    const corners = partsOf(rest, /,/);
    for (const [i, corner] of corners.entries()) {
      const [across, down, more] = wordsOf(corner);
      const x = this.length(across, 'x');
      const y = this.length(down, 'y');
      if (x === null || y === null || more !== undefined) return null;
      const [px, py] = [this.box.minX + x, this.box.minY + y];
      if (i === 0) builder.moveTo(px, py);
      else builder.lineTo(px, py);
    }
    return { path: builder.close().build(), rule };
  }

  private pathOf(said: string): BasicShape | null {
    const { rule, rest } = withRule(said);
    const data = /^(["'])([\s\S]*)\1$/.exec(rest.trim())?.[2];
    if (data === undefined) return null;
    const { path, brokenAt } = readPathData(data);
    return brokenAt === null ? { path: transformPath(path, translation(this.box.minX, this.box.minY)), rule } : null;
  }
}

function withRule(said: string): { rule: FillRule; rest: string } {
  const match = /^\s*(evenodd|nonzero)\s*,/.exec(said);
  return match ? { rule: match[1] as FillRule, rest: said.slice(match[0].length) } : { rule: 'nonzero', rest: said };
}

const wordsOf = (text: string) => partsOf(text, /\s/);

/** A text taken apart where a character matches, but not within brackets or quotes; empty parts are dropped. */
function partsOf(text: string, between: RegExp): string[] {
  const out: string[] = [];
  let depth = 0;
  let quote = '';
  let part = '';
  for (const character of text) {
    if (quote !== '') quote = character === quote ? '' : quote;
    else if (character === '"' || character === "'") quote = character;
    else if (character === '(') depth++;
    else if (character === ')') depth--;
    if (depth === 0 && quote === '' && between.test(character)) {
      out.push(part);
      part = '';
    } else part += character;
  }
  return [...out, part].map((word) => word.trim()).filter((word) => word !== '');
}
