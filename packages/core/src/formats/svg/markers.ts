import type { Shape } from '../../document/shape.ts';
import { outlineOf } from '../../document/shapes.ts';
import { boxOf } from '../../geometry/paths/box.ts';
import {
  applyTo,
  type Matrix,
  multiply,
  type Point,
  rotation,
  scaling,
  translation,
} from '../../geometry/paths/matrix.ts';
import type { Path } from '../../geometry/paths/path.ts';
import { subpathsOf, velocityAt } from '../../geometry/paths/segments.ts';
import { apartFrom, referredTo, viewportArea } from './clip.ts';
import { type Context, enter } from './context.ts';
import type { Host } from './host.ts';
import { fitViewBox, readViewBox } from './page.ts';
import { type Axis, lengthInUserUnits } from './values.ts';
import type { SvgElement } from './xml.ts';

/** Elements that markers stand on. */
const marked = new Set(['path', 'line', 'polyline', 'polygon']);

/** Where a marker stands, and the direction it looks along, in degrees. */
interface Vertex extends Point {
  readonly degrees: number;
}

/** Draws the markers of lines, by SVG 2, section 13.8. */
export class MarkerReader {
  /** The markers that are read now: one that shows itself is not followed. */
  private readonly open = new Set<SvgElement>();

  constructor(private readonly host: Host) {}

  /** Adds what the markers of an element draw, right over it. */
  read(element: SvgElement, shape: Shape, context: Context): void {
    const { markerStart, markerMid, markerEnd } = context;
    if (markerStart === 'none' && markerMid === 'none' && markerEnd === 'none') return;
    if (!marked.has(element.name) || context.hidden) return;
    const vertices = verticesOf(outlineOf(shape));
    const last = vertices.length - 1;
    vertices.forEach((vertex, i) => {
      const reference = i === 0 ? markerStart : i === last ? markerEnd : markerMid;
      this.marker(reference, vertex, i, element, context, i === 0);
      // A point alone is its first vertex and its last.
      if (last === 0) this.marker(markerEnd, vertex, 1, element, context, false);
    });
    if (markerMid !== 'none' && element.name === 'path' && /[aA]/.test(element.attributes.d ?? '')) {
      this.host.notes.add('changed', 'marker-on-arc', 'markers along an arc may stand closer than they were drawn');
    }
  }

  private marker(
    reference: string,
    vertex: Vertex,
    index: number,
    element: SvgElement,
    context: Context,
    first: boolean,
  ): void {
    const { host } = this;
    const marker = reference.trim() === 'none' ? undefined : referredTo(reference, host.byId);
    if (marker?.name !== 'marker' || this.open.has(marker)) return;
    const own = host.sheet.declarationsOf(marker, context.variables);
    const { viewBox, preserveAspectRatio = '', markerUnits, orient = '0' } = marker.attributes;
    const length = (name: string, axis: Axis, otherwise: number) =>
      lengthInUserUnits(marker.attributes[name], context, axis) ?? otherwise;
    const [width, height] = [length('markerWidth', 'x', 3), length('markerHeight', 'y', 3)];
    const box = readViewBox(viewBox) ?? { x: 0, y: 0, width, height };
    if (!(width > 0 && height > 0 && box.width > 0 && box.height > 0)) return;
    const fitted = fitViewBox(box, width, height, preserveAspectRatio);
    const spot = applyTo(fitted, this.refer(marker, context, 'refX', box), this.refer(marker, context, 'refY', box));
    const size = markerUnits === 'userSpaceOnUse' ? 1 : context.strokeWidth;
    const backwards = first && orient === 'auto-start-reverse' ? 180 : 0;
    const turned = orient.startsWith('auto') ? vertex.degrees + backwards : Number.parseFloat(orient) || 0;
    const placed = [
      translation(vertex.x, vertex.y),
      rotation(turned),
      scaling(size, size),
      translation(-spot.x, -spot.y),
    ];
    const frame = placed.reduce<Matrix>(multiply, context.matrix);
    const inside: Context = {
      ...enter(marker, own, apartFrom(context, multiply(frame, fitted)), null),
      groupId: context.groupId,
      viewBox: box,
      viewportWidth: box.width,
      viewportHeight: box.height,
      contextFill: context.fill,
      contextStroke: context.stroke,
    };
    const before = host.out.items.length;
    this.open.add(marker);
    // What stands at each vertex has ids of its own.
    host.out.uses.push(element, { ...marker, place: -1 - index });
    host.children(marker, inside);
    host.out.uses.splice(-2);
    this.open.delete(marker);
    const overflow = own.overflow?.trim();
    if (overflow !== 'visible' && overflow !== 'auto')
      host.out.clip(viewportArea(boxOf(0, 0, width, height), frame), before);
  }

  /** The point of a marker's own frame that comes to lie on the vertex. */
  private refer(marker: SvgElement, context: Context, name: 'refX' | 'refY', box: Box): number {
    const [axis, start, extent] =
      name === 'refX' ? (['x', box.x, box.width] as const) : (['y', box.y, box.height] as const);
    const said = marker.attributes[name] ?? '0';
    const share = { left: 0, top: 0, center: 0.5, right: 1, bottom: 1 }[said];
    if (share !== undefined) return start + share * extent;
    const frame = { ...context, viewportWidth: box.width, viewportHeight: box.height };
    return lengthInUserUnits(said, frame, axis) ?? 0;
  }
}

type Box = { readonly x: number; readonly y: number; readonly width: number; readonly height: number };

/** The vertices of a path: between two segments a marker looks along the middle of their directions. */
function verticesOf(path: Path): Vertex[] {
  const out: Vertex[] = [];
  for (const { segments, closed } of subpathsOf(path)) {
    const along = (i: number, t: number) => {
      const { x, y } = velocityAt(segments[(i + segments.length) % segments.length], t);
      const length = Math.hypot(x, y) || 1;
      return { x: x / length, y: y / length };
    };
    for (let i = 0; i <= segments.length; i++) {
      const [, , , , , , x3, y3] = segments[Math.max(0, i - 1)];
      const [x, y] = i === 0 ? segments[0] : [x3, y3];
      const comes = i > 0 || closed ? along(i - 1, 1) : along(0, 0);
      const goes = i < segments.length || closed ? along(i, 0) : along(i - 1, 1);
      const degrees = (Math.atan2(comes.y + goes.y, comes.x + goes.x) * 180) / Math.PI;
      out.push({ x, y, degrees });
    }
  }
  return out;
}
