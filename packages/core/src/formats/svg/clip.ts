import { outlineOf, rectangleOf } from '../../document/shapes.ts';
import { type Area, areaOf, emptyArea, intersectAreas, uniteAreas } from '../../geometry/areas/area.ts';
import { type Box, boxHeight, boxOf, boxWidth, isEmpty } from '../../geometry/paths/box.ts';
import { type Matrix, multiply } from '../../geometry/paths/matrix.ts';
import { transformPath } from '../../geometry/paths/path.ts';
import { type ReferenceBox, readBasicShape } from './basic-shapes.ts';
import { type Context, enter, ownTransform, startContext } from './context.ts';
import { readShape } from './outline.ts';
import type { StyleSheet } from './style.ts';
import type { SvgElement } from './xml.ts';

/** Reads what `clipPath` elements leave open. */
export class ClipReader {
  constructor(
    private readonly byId: ReadonlyMap<string, SvgElement>,
    private readonly sheet: StyleSheet,
    private readonly textArea: (element: SvgElement, context: Context) => Area,
  ) {}

  /**
   * @param matrix user units of the clipped element to mm
   * @param bounds the clipped element's own bounds, in its user units
   * @returns null when the reference leads nowhere, which by SVG clips nothing; `undefined` when it makes no sense
   */
  area(
    reference: string,
    matrix: Matrix,
    context: Context,
    bounds: Bounds,
    seen: readonly SvgElement[] = [],
  ): Area | null | undefined {
    if (!reference.trim().startsWith('url(')) return basicArea(reference, matrix, context, bounds);
    const element = referredTo(reference, this.byId);
    if (element?.name !== 'clipPath') return null;
    // A clip that refers to itself is in error, and by SVG clips nothing.
    if (seen.includes(element)) return null;
    const own = this.sheet.declarationsOf(element, context.variables);
    let place = matrix;
    const transform = ownTransform(own, context, () => null);
    if (transform) place = multiply(place, transform);
    if (element.attributes.clipPathUnits === 'objectBoundingBox') {
      const box = bounds(false);
      if (isEmpty(box)) return emptyArea;
      place = multiply(place, [boxWidth(box), 0, 0, boxHeight(box), box.minX, box.minY]);
    }
    const inside = enter(element, own, apartFrom(context, place), null);
    const chain = [...seen, element];
    const areas = element.children.map((child) => this.child(child, inside, chain));
    const area = uniteAreas(areas.filter((part) => part.outlines.length > 0));
    return this.within(own['clip-path'], area, matrix, context, bounds, chain);
  }

  private child(element: SvgElement, parent: Context, chain: readonly SvgElement[]): Area {
    const own = this.sheet.declarationsOf(element, parent.variables);
    const transform = ownTransform(own, parent, () => null) ?? null;
    const context = enter(element, own, parent, transform);
    if (context.hidden || !context.visible) return emptyArea;
    let area: Area;
    let bounds: Bounds = () => area.bounds;
    if (element.name === 'use') {
      const target = this.byId.get((element.attributes.href ?? '').replace(/^#/, ''));
      if (!target || chain.includes(target)) return emptyArea;
      const shift = (name: string) => Number.parseFloat(element.attributes[name] ?? '0') || 0;
      const moved = { ...context, matrix: multiply(context.matrix, [1, 0, 0, 1, shift('x'), shift('y')]) };
      area = this.child(target, moved, [...chain, target]);
    } else if (element.name === 'text') {
      area = this.textArea(element, context);
    } else {
      const read = readShape(element, own, context);
      if (!read) return emptyArea;
      const outline = outlineOf(read.shape);
      area = areaOf(transformPath(outline, context.matrix), context.clipRule);
      bounds = () => areaOf(outline, 'nonzero').bounds;
    }
    return this.within(own['clip-path'], area, context.matrix, context, bounds, chain);
  }

  private within(
    reference: string | undefined,
    area: Area,
    matrix: Matrix,
    context: Context,
    bounds: Bounds,
    chain: readonly SvgElement[],
  ): Area {
    if (reference === undefined || reference.trim() === 'none') return area;
    const clip = this.area(reference, matrix, context, bounds, chain);
    return clip ? intersectAreas(area, clip) : area;
  }
}

/** Gives the bounds of a part in its user units, with its strokes or without. */
export type Bounds = (stroked: boolean) => Box;

/** The element of the file that a `url()` refers to. */
export function referredTo(reference: string, byId: ReadonlyMap<string, SvgElement>): SvgElement | undefined {
  const name = /^url\(\s*["']?#([^"')]*)["']?\s*\)/.exec(reference.trim())?.[1];
  return name === undefined ? undefined : byId.get(name);
}

/** The context of what is drawn apart from where it is used: nothing of how that is painted is taken over. */
export function apartFrom(context: Context, matrix: Matrix): Context {
  const { fontSize, rootFontSize, variables } = context;
  return { ...startContext(matrix, context.viewBox), fontSize, rootFontSize, variables };
}

/** The area of a basic shape of CSS; `undefined` where it makes no sense. */
function basicArea(text: string, matrix: Matrix, context: Context, bounds: Bounds): Area | undefined {
  const { x, y, width, height } = context.viewBox;
  const boxes = (name: ReferenceBox) =>
    name === 'view-box' ? boxOf(x, y, width, height) : bounds(name === 'stroke-box');
  const shape = readBasicShape(text, context, boxes);
  return shape ? areaOf(transformPath(shape.path, matrix), shape.rule) : undefined;
}

/** The area of a rectangle in user units, in mm. */
export function viewportArea(box: Box, matrix: Matrix): Area {
  return areaOf(transformPath(outlineOf(rectangleOf(box)), matrix), 'nonzero');
}
