import type { ReadingChoices } from '../../document/arrival.ts';
import type { Item, Paint } from '../../document/item.ts';
import type { Shape } from '../../document/shape.ts';
import { boundsOfShape, outlineOf } from '../../document/shapes.ts';
import type { Area } from '../../geometry/areas/area.ts';
import { type Box, boxesMeet, boxOf, emptyBox, growBox, transformBox, uniteBoxes } from '../../geometry/paths/box.ts';
import { invert, isUneven, type Matrix, meanScale, multiply } from '../../geometry/paths/matrix.ts';
import { pathBounds, transformPath } from '../../geometry/paths/path.ts';
import { polylineBounds } from '../../geometry/questions/nesting.ts';
import { clipItems } from '../clipping.ts';
import { fadeUnlessPlain, noteFade } from '../fade-stops.ts';
import { type Notes, unevenStroke } from '../reading.ts';
import type { Context } from './context.ts';
import { fadeOfGradient } from './gradient.ts';
import type { PaintReader, ReadPaint } from './paint.ts';
import type { Declared } from './specified.ts';
import { mmPerPx } from './values.ts';
import type { SvgElement } from './xml.ts';

/** The items that a drawing in SVG comes to, with the paint of the context that they stand in. */
export class SvgItems {
  readonly items: Item[] = [];
  /** The `use` elements that led to what is read now, from the outside in. */
  readonly uses: SvgElement[] = [];

  /** @param idFor gives an id for a part of the file by its place there */
  constructor(
    private readonly idFor: (place: string) => string,
    private readonly paints: PaintReader,
    private readonly notes: Notes,
    private readonly choices: ReadingChoices,
  ) {}

  /** An id for a part of an element, by its place in the file and the `use` elements that led to it. */
  id(element: SvgElement, part = ''): string {
    const chain =
      this.uses.length === 0 ? String(element.place) : [...this.uses, element].map(({ place }) => place).join('.');
    return this.idFor(part === '' ? chain : `${chain}${part}`);
  }

  /** Adds an item with the paint of its context. @returns its id */
  add(element: SvgElement, part: string, name: string | null, shape: Shape, own: Declared, context: Context): string {
    const shown = !context.hidden && context.visible;
    const paint = this.paint(own, shape, context);
    const bare = paint.stroke === null && paint.fill === null;
    const id = this.push(element, part, name, shape, paint, context, !shown || bare);
    if (paint.fade) noteFade(this.notes, id);
    if (!shown)
      this.notes.add('left-out', 'hidden-left-out', 'a part that the file does not show is kept hidden', [id]);
    else if (bare)
      this.notes.add('left-out', 'unpainted-left-out', 'an outline with neither stroke nor fill is kept hidden', [id]);
    return id;
  }

  /** Adds an item as it is painted, and shown or not. @returns its id */
  push(
    element: SvgElement,
    part: string,
    name: string | null,
    shape: Shape,
    paint: Paint,
    context: Context,
    hidden: boolean,
  ): string {
    const id = this.id(element, part);
    const { matrix, fillRule, groupId } = context;
    this.items.push({ id, name, shape, matrix, paint, fillRule, groupId, pinned: null, hidden });
    return id;
  }

  private paint(own: Declared, shape: Shape, context: Context): Paint {
    const fixed = own['vector-effect']?.trim() === 'non-scaling-stroke';
    const strokeWidthMm = context.strokeWidth * (fixed ? mmPerPx : meanScale(context.matrix));
    let stroke = this.lineColour(context);
    if (stroke !== null && !(strokeWidthMm > 0)) {
      this.notes.add('left-out', 'zero-width-stroke', 'a stroke of width 0 does not show, and is not taken');
      stroke = null;
    }
    if (stroke !== null && !fixed && isUneven(context.matrix)) {
      this.notes.add('changed', 'uneven-stroke', unevenStroke);
    }
    const filled = this.fill(shape, context);
    if (stroke === null) return { stroke, strokeWidthMm: 0, ...filled };
    const { cap, join } = context;
    const plain: Paint = { stroke, strokeWidthMm: Math.round(strokeWidthMm * 1e4) / 1e4, ...filled };
    if (cap === 'butt' && join === 'miter') return plain;
    return {
      ...plain,
      ...(cap === 'round' || cap === 'square' ? { cap } : {}),
      ...(join === 'round' || join === 'bevel' ? { join } : {}),
    };
  }

  /** What a line is drawn in: lines are of one solid colour. */
  private lineColour(context: Context): string | null {
    const { colour, alpha, trouble } = this.paints.read(context.stroke, context);
    const opacity = alpha * context.strokeOpacity * context.opacity;
    if (colour === null || opacity === 0) return null;
    this.noteTrouble(context.stroke, trouble);
    if (opacity < 1) this.notes.add('changed', 'see-through', 'a see-through line is taken as solid');
    return colour;
  }

  /** What a shape is filled with: its colour, or the mean of those that it has, and how it fades where it does. */
  private fill(shape: Shape, context: Context): Pick<Paint, 'fill' | 'fade'> {
    const { colour, alpha, trouble, gradient } = this.paints.read(context.fill, context);
    const opacity = context.fillOpacity * context.opacity;
    if (colour === null || alpha * opacity === 0) return { fill: null };
    if (gradient) {
      const fade = fadeOfGradient(gradient, context, boundsOfShape(shape), opacity);
      const kept = fade && fadeUnlessPlain(fade);
      if (kept) return { fill: colour, fade: kept };
      if (fade) return { fill: colour };
    }
    this.noteTrouble(context.fill, trouble);
    return alpha * opacity < 1 ? { fill: colour, fade: { kind: 'even', opacity: alpha * opacity } } : { fill: colour };
  }

  private noteTrouble(text: string, trouble: ReadPaint['trouble']): void {
    if (trouble === 'not-a-colour') {
      this.notes.add('changed', 'colour-not-read', `“${text.slice(0, 40)}” is not a colour; black is taken`);
    } else if (trouble) {
      this.notes.add('changed', `${trouble}-as-mean`, `a ${trouble} is taken as its mean colour`);
    }
  }

  /** The bounds of the items added since `from`, in the units that `matrix` takes to mm, their strokes too if `stroked`. */
  boundsSince(from: number, matrix: Matrix, stroked: boolean): Box {
    const back = invert(matrix);
    if (!back) return emptyBox;
    return this.items
      .slice(from)
      .map((item) => {
        const box = pathBounds(transformPath(outlineOf(item.shape), multiply(back, item.matrix)));
        return stroked ? growBox(box, (item.paint.strokeWidthMm / 2) * meanScale(back)) : box;
      })
      .reduce(uniteBoxes, emptyBox);
  }

  /** Cuts the items added since `from` to an area. */
  clip(area: Area, from: number): void {
    this.items.push(...clipItems(this.items.splice(from), area, this.notes, this.choices));
  }

  /** Says which items lie outside the page. */
  noteOutside(width: number | null, height: number | null): void {
    if (width === null || height === null) return;
    const page = boxOf(0, 0, width, height);
    // By handles, not by curves: to be well outside is what is asked, and nothing is to be kept of it.
    const outside = this.items.filter((item) => !item.hidden && !boxesMeet(page, roughBounds(item)));
    if (outside.length === 0) return;
    const ids = outside.map(({ id }) => id);
    this.notes.add(
      'taken',
      'outside-page',
      'a part lies outside the page of the file, and is taken too',
      ids,
      ids.length,
    );
  }
}

/** A box that an item lies in, from its shape's own numbers, curves by their handles; in mm. */
function roughBounds({ shape, matrix }: Item): Box {
  switch (shape.kind) {
    case 'path':
      return transformBox(polylineBounds({ points: shape.path.coords, closed: false }), matrix);
    case 'ellipse':
      return transformBox(boxOf(shape.cx - shape.rx, shape.cy - shape.ry, 2 * shape.rx, 2 * shape.ry), matrix);
    case 'rectangle':
      return transformBox(boxOf(shape.x, shape.y, shape.width, shape.height), matrix);
    default:
      return transformBox(pathBounds(outlineOf(shape)), matrix);
  }
}
