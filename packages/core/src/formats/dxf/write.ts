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
import { outlineOf } from '../../document/shapes.ts';
import { type Arc, arcOfCubic } from '../../geometry/paths/arc-of.ts';
import { boxHeight, boxWidth } from '../../geometry/paths/box.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { applyTo, type Matrix, multiply } from '../../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../../geometry/paths/path.ts';
import { isLine, type Segment, type Subpath, subpathsOf } from '../../geometry/paths/segments.ts';
import { followsLines, type Operation } from '../../operations/operations.ts';
import { nameWithOperation } from '../named-layers.ts';
import { type FileUnit, mmPerFileUnit, type Outgoing } from '../outgoing.ts';

/** How near a circle a curve must be to go out as an arc, in the unit of the file. */
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
 * A drawing as ASCII DXF in mm or inches, y up from the page's bottom left, a layer a layer, named with its operation. Circles,
 * arcs and ellipses go out as such, lines and arcs as polylines with bulges, other curves as splines of degree 3.
 * Fills are solid hatches; on a layer that burns along lines, their outlines. Pictures have no place in it.
 */
export function writeDxf({ page, layers }: Outgoing, unit: FileUnit = 'mm'): string {
  const scale = 1 / mmPerFileUnit[unit];
  const file = new DxfWriter();
  file.setUnits(unit === 'mm' ? Units.Millimeters : Units.Inches);
  file.setVariable('$LIMMIN', { 10: 0, 20: 0 });
  file.setVariable('$LIMMAX', { 10: boxWidth(page) * scale, 20: boxHeight(page) * scale });
  const names = new Set<string>();
  for (const { name, meant, items } of layers) {
    const layer = freeName(name, meant?.operation ?? null, names);
    file.addLayer(layer, 7, 'Continuous');
    const alongLines = meant !== null && followsLines(meant.operation);
    for (const item of items) {
      if (item.shape.kind === 'picture') continue;
      const { stroke, fill } = item.paint;
      const place = multiply([scale, 0, 0, -scale, -page.minX * scale, page.maxY * scale], item.matrix);
      const path = transformPath(outlineOf(item.shape), place);
      if (fill !== null && !alongLines) addFill(file, path, fillTolerance * scale, layer, fill);
      const line = stroke ?? (alongLines ? fill : null);
      if (line === null) continue;
      if (item.shape.kind === 'ellipse') addEllipse(file, item.shape, place, layer, line);
      else for (const part of subpathsOf(path)) addLine(file, part, layer, line);
    }
  }
  return file.stringify();
}

/** DXF's layer names have no punctuation of certain kinds, and are told apart without their case. */
function freeName(name: string, operation: Operation | null, taken: Set<string>): string {
  const plain = name.replace(/[<>/\\":;?*|=`,]/g, '-').trim() || 'Layer';
  const named = (text: string) => (operation ? nameWithOperation(operation, text) : text);
  let free = named(plain);
  for (let i = 2; taken.has(free.toLowerCase()) || free === '0'; i++) free = named(`${plain} ${i}`);
  taken.add(free.toLowerCase());
  return free;
}

/** A colour as DXF has it: one number, in words. */
const colourOf = (colour: string) => String(Number.parseInt(colour.slice(1), 16));

/** An ellipse whose half axes differ by less is a circle, in the unit of the file. */
const circleTolerance = 1e-6;

/** The image of an ellipse under a map, which is an ellipse again: its axes are the map's singular vectors. */
function addEllipse(
  file: DxfWriter,
  { cx, cy, rx, ry }: { readonly cx: number; readonly cy: number; readonly rx: number; readonly ry: number },
  place: Matrix,
  layerName: string,
  stroke: string,
): void {
  const [a, b, c, d] = [place[0] * rx, place[1] * rx, place[2] * ry, place[3] * ry];
  const centre = applyTo(place, cx, cy);
  const options = { layerName, trueColor: colourOf(stroke) };
  // Where along the circle the image is furthest from its middle.
  const t = Math.atan2(2 * (a * c + b * d), a * a + b * b - c * c - d * d) / 2;
  const axis = (angle: number) => ({
    x: a * Math.cos(angle) + c * Math.sin(angle),
    y: b * Math.cos(angle) + d * Math.sin(angle),
  });
  const [major, minor] = [axis(t), axis(t + Math.PI / 2)];
  const [long, short] = [Math.hypot(major.x, major.y), Math.hypot(minor.x, minor.y)];
  const middle = point3d(centre.x, centre.y, 0);
  if (long - short < circleTolerance) file.addCircle(middle, (long + short) / 2, options);
  else file.addEllipse(middle, point3d(major.x, major.y, 0), short / long, 0, 2 * Math.PI, options);
}

/** Adds a part of a circle, or all of it, where vertices are nothing else. @returns whether they were */
function addRound(file: DxfWriter, vertices: readonly Vertex[], closed: boolean, options: LineOptions): boolean {
  const [first] = vertices;
  const { arc } = first;
  if (!arc || !vertices.every((vertex) => vertex.arc && isSameCircle(arc, vertex.arc))) return false;
  const span = vertices.reduce((sum, vertex) => sum + (vertex.arc?.span ?? 0), 0);
  const middle = point3d(arc.cx, arc.cy, 0);
  const whole = Math.abs(Math.abs(span) - 2 * Math.PI) < 1e-6;
  if (whole !== closed || Math.abs(span) > 2 * Math.PI + 1e-6) return false;
  if (whole) {
    file.addCircle(middle, arc.radius, options);
    return true;
  }
  const start = Math.atan2(first.y - arc.cy, first.x - arc.cx);
  // An arc in DXF runs against the clock.
  const [from, to] = span > 0 ? [start, start + span] : [start + span, start];
  const degrees = (angle: number) => ((((angle * 180) / Math.PI) % 360) + 360) % 360;
  file.addArc(middle, arc.radius, degrees(from), degrees(to), options);
  return true;
}

interface LineOptions {
  readonly layerName: string;
  readonly trueColor: string;
}

function addLine(file: DxfWriter, { segments, closed }: Subpath, layerName: string, stroke: string): void {
  const options = { layerName, trueColor: colourOf(stroke) };
  const vertices = bulgedVertices(segments);
  if (vertices && addRound(file, vertices, closed, options)) return;
  if (vertices) {
    const [last] = segments.slice(-1);
    if (!closed) vertices.push({ x: last[6], y: last[7], bulge: 0, arc: null });
    file.addLWPolyline(
      vertices.map(({ x, y, bulge }) => ({ point: point2d(x, y), ...(bulge === 0 ? {} : { bulge }) })),
      { ...options, flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None },
    );
    return;
  }
  const [last] = segments.slice(-1);
  const isClosed = closed || (last[6] === segments[0][0] && last[7] === segments[0][1]);
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
    { controlPoints, degreeCurve: 3, knots, flags: SplineFlags.Planar | (isClosed ? SplineFlags.Closed : 0) },
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

function isSameCircle(a: Arc, b: Arc): boolean {
  return Math.hypot(a.cx - b.cx, a.cy - b.cy) < arcTolerance && Math.abs(a.radius - b.radius) < arcTolerance;
}

function goesOn(a: Arc, b: Arc): boolean {
  return isSameCircle(a, b) && a.span * b.span > 0 && Math.abs(a.span + b.span) < Math.PI * 1.01;
}

function addFill(file: DxfWriter, path: Path, tolerance: number, layerName: string, fill: string): void {
  const boundary = new HatchBoundaryPaths();
  for (const { points } of flatten(path, tolerance)) {
    if (points.length < 6) continue;
    const ring = new HatchPolylineBoundary();
    for (let i = 0; i < points.length; i += 2) ring.add({ x: points[i], y: points[i + 1] } as never);
    boundary.addPolylineBoundary(ring);
  }
  if (boundary.length === 0) return;
  file.addHatch(boundary, pattern({ name: HatchPredefinedPatterns.SOLID }), { layerName, trueColor: colourOf(fill) });
}
