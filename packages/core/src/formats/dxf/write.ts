import {
  DxfWriter,
  HatchBoundaryPaths,
  HatchPolylineBoundary,
  HatchPredefinedPatterns,
  LWPolylineFlags,
  pattern,
  point2d,
  point3d,
  SplineFlags,
  Units,
} from '@tarikjabiri/dxf';
import { pathOf } from '../../document/item.ts';
import { type Arc, arcOfCubic } from '../../geometry/paths/arc-of.ts';
import { boxHeight, boxWidth } from '../../geometry/paths/box.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { type Path, transformPath } from '../../geometry/paths/path.ts';
import { isLine, type Segment, type Subpath, subpathsOf } from '../../geometry/paths/segments.ts';
import type { Outgoing } from '../outgoing.ts';

/** How near a circle a curve must be to go out as an arc, in mm. */
const arcTolerance = 1e-4;
/** How far fills' edges may stray, in mm. */
const fillTolerance = 0.002;

interface Vertex {
  x: number;
  y: number;
  bulge: number;
  arc: Arc | null;
}

/**
 * A drawing as ASCII DXF in mm, y up from the page's bottom left, a layer a layer. Lines and arcs go out
 * as polylines with bulges, other curves as splines of degree 3, fills as solid hatches. Pictures have no
 * place in it.
 */
export function writeDxf({ page, layers }: Outgoing): string {
  const file = new DxfWriter();
  file.setUnits(Units.Millimeters);
  file.setVariable('$LIMMIN', { 10: 0, 20: 0 });
  file.setVariable('$LIMMAX', { 10: boxWidth(page), 20: boxHeight(page) });
  const names = new Set<string>();
  for (const { name, items } of layers) {
    const layer = freeName(name, names);
    file.addLayer(layer, 7, 'Continuous');
    for (const item of items) {
      if (item.shape.kind === 'picture') continue;
      const path = transformPath(pathOf(item), [1, 0, 0, -1, -page.minX, page.maxY]);
      const { stroke, fill } = item.paint;
      if (fill !== null) addFill(file, path, layer, fill);
      if (stroke !== null) for (const part of subpathsOf(path)) addLine(file, part, layer, stroke);
    }
  }
  return file.stringify();
}

/** DXF's layer names have no punctuation of certain kinds, and are told apart without their case. */
function freeName(name: string, taken: Set<string>): string {
  const plain = name.replace(/[<>/\\":;?*|=`,]/g, '-').trim() || 'Layer';
  let free = plain;
  for (let i = 2; taken.has(free.toLowerCase()) || free === '0'; i++) free = `${plain} ${i}`;
  taken.add(free.toLowerCase());
  return free;
}

/** A colour as DXF has it: one number, in words. */
const colourOf = (colour: string) => String(Number.parseInt(colour.slice(1), 16));

function addLine(file: DxfWriter, { segments, closed }: Subpath, layerName: string, stroke: string): void {
  const options = { layerName, trueColor: colourOf(stroke) };
  const vertices = bulgedVertices(segments);
  if (vertices) {
    const [last] = segments.slice(-1);
    if (!closed) vertices.push({ x: last[6], y: last[7], bulge: 0, arc: null });
    file.addLWPolyline(
      vertices.map(({ x, y, bulge }) => ({ point: point2d(x, y), ...(bulge === 0 ? {} : { bulge }) })),
      { ...options, flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None },
    );
    return;
  }
  const points = segments.flatMap((segment) => (isLine(segment) ? straight(segment) : segment.slice(2)));
  const controlPoints = [point3d(segments[0][0], segments[0][1], 0)];
  for (let i = 0; i < points.length; i += 2) controlPoints.push(point3d(points[i], points[i + 1], 0));
  const knots = [
    0,
    ...segments.flatMap((_, i) => [i, i, i]),
    segments.length,
    segments.length,
    segments.length,
    segments.length,
  ];
  file.addSpline(
    { controlPoints, degreeCurve: 3, knots, flags: closed ? SplineFlags.Closed : SplineFlags.Planar },
    options,
  );
}

/** A line's handles a third of the way, so that its spline runs evenly. */
function straight([x0, y0, , , , , x3, y3]: Segment): number[] {
  return [x0 + (x3 - x0) / 3, y0 + (y3 - y0) / 3, x3 - (x3 - x0) / 3, y3 - (y3 - y0) / 3, x3, y3];
}

/** Segments as vertices with bulges; arcs that go on around one circle are one. Null when a curve is no arc. */
function bulgedVertices(segments: Subpath['segments']): Vertex[] | null {
  const out: Vertex[] = [];
  for (const segment of segments) {
    const arc = isLine(segment) ? null : arcOfCubic(segment, arcTolerance);
    if (!isLine(segment) && !arc) return null;
    const before = out.at(-1);
    if (arc && before?.arc && goesOn(before.arc, arc)) {
      before.arc = { ...arc, span: before.arc.span + arc.span };
      before.bulge = Math.tan(before.arc.span / 4);
    } else out.push({ x: segment[0], y: segment[1], bulge: arc ? Math.tan(arc.span / 4) : 0, arc });
  }
  return out;
}

function goesOn(a: Arc, b: Arc): boolean {
  const same = Math.hypot(a.cx - b.cx, a.cy - b.cy) < arcTolerance && Math.abs(a.radius - b.radius) < arcTolerance;
  return same && a.span * b.span > 0 && Math.abs(a.span + b.span) < Math.PI * 1.01;
}

function addFill(file: DxfWriter, path: Path, layerName: string, fill: string): void {
  const boundary = new HatchBoundaryPaths();
  for (const { points } of flatten(path, fillTolerance)) {
    if (points.length < 6) continue;
    const ring = new HatchPolylineBoundary();
    for (let i = 0; i < points.length; i += 2) ring.add({ x: points[i], y: points[i + 1] } as never);
    boundary.addPolylineBoundary(ring);
  }
  if (boundary.length === 0) return;
  file.addHatch(boundary, pattern({ name: HatchPredefinedPatterns.SOLID }), { layerName, trueColor: colourOf(fill) });
}
