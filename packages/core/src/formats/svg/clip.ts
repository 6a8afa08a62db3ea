import { outlineOf, rectangleOf } from '../../document/shapes.ts';
import { type Area, areaOf, emptyArea, intersectAreas, uniteAreas } from '../../geometry/areas/area.ts';
import { type Box, boxHeight, boxWidth, isEmpty } from '../../geometry/paths/box.ts';
import { type Matrix, multiply } from '../../geometry/paths/matrix.ts';
import { transformPath } from '../../geometry/paths/path.ts';
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
   * @returns null when the reference leads nowhere, which by SVG clips nothing
   */
  area(
    reference: string,
    matrix: Matrix,
    context: Context,
    bounds: () => Box,
    seen: readonly SvgElement[] = [],
  ): Area | null {
    const name = /^url\(\s*["']?#([^"')]*)["']?\s*\)/.exec(reference.trim())?.[1];
    const element = name === undefined ? undefined : this.byId.get(name);
    if (element?.name !== 'clipPath') return null;
    // A clip that refers to itself is in error, and by SVG clips nothing.
    if (seen.includes(element)) return null;
    const own = this.sheet.declarationsOf(element);
    let place = matrix;
    const transform = ownTransform(own, context, () => null);
    if (transform) place = multiply(place, transform);
    if (element.attributes.clipPathUnits === 'objectBoundingBox') {
      const box = bounds();
      if (isEmpty(box)) return emptyArea;
      place = multiply(place, [boxWidth(box), 0, 0, boxHeight(box), box.minX, box.minY]);
    }
    const inside = enter(element, own, { ...startContext(place, context.viewBox), fontSize: context.fontSize }, null);
    const chain = [...seen, element];
    const areas = element.children.map((child) => this.child(child, inside, chain));
    const area = uniteAreas(areas.filter((part) => part.outlines.length > 0));
    return this.within(own['clip-path'], area, matrix, context, bounds, chain);
  }

  private child(element: SvgElement, parent: Context, chain: readonly SvgElement[]): Area {
    const own = this.sheet.declarationsOf(element);
    const transform = ownTransform(own, parent, () => null) ?? null;
    const context = enter(element, own, parent, transform);
    if (context.hidden || !context.visible) return emptyArea;
    let area: Area;
    let bounds: () => Box = () => area.bounds;
    if (element.name === 'use') {
      const target = this.byId.get((element.attributes.href ?? '').replace(/^#/, ''));
      if (!target || chain.includes(target)) return emptyArea;
      const shift = (name: string) => Number.parseFloat(element.attributes[name] ?? '0') || 0;
      const moved = { ...context, matrix: multiply(context.matrix, [1, 0, 0, 1, shift('x'), shift('y')]) };
      area = this.child(target, moved, [...chain, target]);
    } else if (element.name === 'text') {
      area = this.textArea(element, context);
    } else {
      const read = readShape(element, context);
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
    bounds: () => Box,
    chain: readonly SvgElement[],
  ): Area {
    if (reference === undefined || reference.trim() === 'none') return area;
    const clip = this.area(reference, matrix, context, bounds, chain);
    return clip ? intersectAreas(area, clip) : area;
  }
}

/** The area of a rectangle in user units, in mm. */
export function viewportArea(box: Box, matrix: Matrix): Area {
  return areaOf(transformPath(outlineOf(rectangleOf(box)), matrix), 'nonzero');
}
