import { type ColourKey, layersUnder, type Rule } from '../colours/key.ts';
import type { Item, Paint } from '../document/item.ts';
import type { Shape } from '../document/shape.ts';
import { boxOf } from '../geometry/paths/box.ts';
import { identity, type Matrix, translation } from '../geometry/paths/matrix.ts';
import { type Operation, operationOf } from '../operations/operations.ts';
import type { FontBook } from '../text/fonts.ts';
import { setText, textShape, usualText } from '../text/set.ts';
import type { Outgoing } from './outgoing.ts';

/** What one rule of a key asks of whoever draws for it; widths in mm. */
export interface DrawingRule {
  readonly part: Rule['part'];
  /** Null where any colour will do. */
  readonly colour: string | null;
  readonly minWidthMm: number | null;
  readonly maxWidthMm: number | null;
  readonly operation: Operation;
}

/** What a key asks of whoever draws for it: its rules in their order, those for greys left out, which no swatch can show. */
export function drawingRules(key: ColourKey): DrawingRule[] {
  const layers = new Map(layersUnder(key).map(({ id, operation }) => [id, operation]));
  return key.rules.flatMap(({ part, colour, minWidthMm, maxWidthMm, grey, layerId }) => {
    const operation = layers.get(layerId);
    return operation === undefined || grey ? [] : [{ part, colour, minWidthMm, maxWidthMm, operation }];
  });
}

/** Between what stands on a template, in mm. */
const gap = 4;
const swatch = { width: 14, height: 7 };
const ink = '#6B736F';

/**
 * A page to draw on, as large as a bed, with the margin that is kept free. A swatch of each colour of a key says what is done with it.
 * All of it is a guide: read in again, none of it burns.
 * @param bed in mm
 * @param marginMm how far from the edge nothing is drawn
 * @param fonts what its words are set in
 */
export function drawingTemplate(
  bed: { readonly width: number; readonly height: number },
  marginMm: number,
  key: ColourKey,
  fonts: FontBook,
): Outgoing {
  const { width, height } = bed;
  const page = boxOf(0, 0, width, height);
  const line = (colour: string): Paint => ({ stroke: colour, strokeWidthMm: 0.1, fill: null });
  const items: Item[] = [];
  const draw = (name: string, shape: Shape, paint: Paint, matrix: Matrix = identity) =>
    items.push({
      id: `template-${items.length + 1}`,
      name,
      shape,
      paint,
      matrix,
      fillRule: 'nonzero',
      groupId: null,
      pinned: null,
      hidden: false,
    });
  const box = (x: number, y: number, w: number, h: number): Shape => ({
    kind: 'rectangle',
    x,
    y,
    width: w,
    height: h,
    rx: 0,
    ry: 0,
  });
  draw('Edge', box(0, 0, width, height), line(ink));
  draw('Margin', box(marginMm, marginMm, width - 2 * marginMm, height - 2 * marginMm), line(ink));
  const rules = drawingRules(key);
  for (const [i, rule] of rules.entries()) {
    const top = height - marginMm - (swatch.height + gap) * (rules.length - i);
    const left = marginMm + gap;
    const colour = rule.colour ?? '#000000';
    const isLine = rule.part === 'stroke';
    const paint: Paint = isLine
      ? { stroke: colour, strokeWidthMm: rule.maxWidthMm ?? rule.minWidthMm ?? 0.3, fill: null }
      : { stroke: null, strokeWidthMm: 0, fill: colour };
    const words = wordsOf(rule);
    draw(words, box(left, top, swatch.width, swatch.height), paint);
    const text = { ...usualText, words, height: 3 };
    const beside = translation(left + swatch.width + gap / 2, top + swatch.height / 2 + 1.5);
    draw(words, textShape(text, setText(text, fonts)), { stroke: null, strokeWidthMm: 0, fill: ink }, beside);
  }
  const { name, colour } = operationOf('guide');
  return { page, layers: [{ name, meant: { id: 'guide', operation: 'guide' }, colour, items }], pictures: new Map() };
}

/** What is done with what a rule means, such as `Lines 0.1 to 0.5 mm wide: Score`. */
function wordsOf({ part, minWidthMm: min, maxWidthMm: max, operation }: DrawingRule): string {
  const name = operationOf(operation).name;
  if (part === 'fill') return `Fills: ${name}`;
  if (min === null && max === null) return `Lines: ${name}`;
  if (min === null) return `Lines up to ${max} mm wide: ${name}`;
  return max === null ? `Lines from ${min} mm wide: ${name}` : `Lines ${min} to ${max} mm wide: ${name}`;
}
