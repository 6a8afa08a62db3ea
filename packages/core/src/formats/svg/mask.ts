import { type Item, pathOf } from '../../document/item.ts';
import {
  type Area,
  areaOf,
  emptyArea,
  intersectAreas,
  strokeArea,
  subtractAreas,
  uniteAreas,
} from '../../geometry/areas/area.ts';
import { type Box, boxHeight, boxOf, boxWidth } from '../../geometry/paths/box.ts';
import { type Matrix, multiply } from '../../geometry/paths/matrix.ts';
import { apartFrom, referredTo, viewportArea } from './clip.ts';
import { type Context, enter } from './context.ts';
import type { Host } from './host.ts';
import { lengthInUserUnits } from './values.ts';
import type { SvgElement } from './xml.ts';

/** Reads what masks leave to see. */
export class MaskReader {
  /** The masks that are read now: one that masks itself is in error. */
  private readonly open = new Set<SvgElement>();

  constructor(private readonly host: Host) {}

  /**
   * What a mask of plain white and black shapes leaves to see.
   *
   * @param bounds the bounds of what is masked, in its user units
   * @returns null where the reference leads nowhere, which masks nothing; `undefined` where the mask is of another kind
   */
  area(reference: string, context: Context, bounds: Box): Area | null | undefined {
    if (!reference.trim().startsWith('url(')) return undefined;
    const { host } = this;
    const element = referredTo(reference, host.byId);
    if (element?.name !== 'mask') return null;
    if (this.open.has(element)) return undefined;
    const own = host.sheet.declarationsOf(element, context.variables);
    const boxed: Matrix = [boxWidth(bounds), 0, 0, boxHeight(bounds), bounds.minX, bounds.minY];
    const onBox = element.attributes.maskContentUnits === 'objectBoundingBox';
    const place = onBox ? multiply(context.matrix, boxed) : context.matrix;
    const inside = enter(element, own, apartFrom(context, place), null);
    this.open.add(element);
    const { items, notes } = host.aside(() => host.children(element, inside));
    this.open.delete(element);
    // A mean colour, a see-through line or a mask within that was not applied: such a mask has no plain edge.
    if (notes.some(({ kind }) => kind === 'changed')) return undefined;
    const byAlpha = (own['mask-type'] ?? element.attributes['mask-type'])?.trim() === 'alpha';
    const area = plainArea(items, byAlpha);
    return area && intersectAreas(area, region(element, context, boxed));
  }
}

/** White shapes one after another, less the black ones over them; `undefined` where there is any other colour. */
function plainArea(items: readonly Item[], byAlpha: boolean): Area | undefined {
  let area: Area = emptyArea;
  for (const item of items) {
    if (item.hidden) continue;
    if (item.shape.kind === 'picture' || item.paint.fade) return undefined;
    const { stroke, strokeWidthMm, fill, join, cap } = item.paint;
    const parts: readonly [colour: string | null, part: () => Area][] = [
      [fill, () => areaOf(pathOf(item), item.fillRule)],
      [stroke, () => strokeArea(pathOf(item), strokeWidthMm, join, cap)],
    ];
    for (const [colour, part] of parts) {
      if (colour === null) continue;
      if (byAlpha || colour === '#FFFFFF') area = uniteAreas([area, part()]);
      else if (colour === '#000000') area = subtractAreas(area, part());
      else return undefined;
    }
  }
  return area;
}

/** The frame that a mask covers at most: unless it says otherwise, a tenth beyond what is masked. */
function region(element: SvgElement, context: Context, boxed: Matrix): Area {
  const { x = '-10%', y = '-10%', width = '120%', height = '120%', maskUnits } = element.attributes;
  const onBox = maskUnits !== 'userSpaceOnUse';
  const frame = onBox ? { ...context, viewportWidth: 1, viewportHeight: 1 } : context;
  const side = (text: string, axis: 'x' | 'y') => lengthInUserUnits(text, frame, axis) ?? 0;
  const box = boxOf(side(x, 'x'), side(y, 'y'), side(width, 'x'), side(height, 'y'));
  return viewportArea(box, onBox ? multiply(context.matrix, boxed) : context.matrix);
}
