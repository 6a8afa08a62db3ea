import svgpath from 'svgpath';
import { arcTo } from '../../geometry/arc.ts';
import { type Path, PathBuilder } from '../../geometry/path.ts';
import type { Shape } from '../../geometry/shapes.ts';
import { readNumbers, userUnits } from './values.ts';
import type { SvgElement } from './xml.ts';

export interface ReadShape {
  readonly shape: Shape;
  /** What could not be read of it, as the end of a sentence; null when all was. */
  readonly problem: string | null;
}

/** The shape of a drawn element in user units; null when by SVG's rules it draws nothing. */
export function readShape(element: SvgElement): ReadShape | null {
  const number = (name: string) => userUnits(element.attributes.get(name)) ?? 0;
  switch (element.name) {
    case 'path':
      return readPathData(element.attributes.get('d') ?? '');
    case 'rect': {
      const width = number('width');
      const height = number('height');
      if (!(width > 0 && height > 0)) return null;
      const rx = userUnits(element.attributes.get('rx'));
      const ry = userUnits(element.attributes.get('ry'));
      const radius = (own: number | null, other: number | null) => Math.max(0, own ?? other ?? 0);
      return sound({
        kind: 'rectangle',
        x: number('x'),
        y: number('y'),
        width,
        height,
        rx: Math.min(radius(rx, ry), width / 2),
        ry: Math.min(radius(ry, rx), height / 2),
      });
    }
    case 'circle':
    case 'ellipse': {
      const rx = element.name === 'circle' ? number('r') : number('rx');
      const ry = element.name === 'circle' ? number('r') : number('ry');
      if (!(rx > 0 && ry > 0)) return null;
      return sound({ kind: 'ellipse', cx: number('cx'), cy: number('cy'), rx, ry });
    }
    case 'line': {
      const builder = new PathBuilder().moveTo(number('x1'), number('y1')).lineTo(number('x2'), number('y2'));
      return sound({ kind: 'path', path: builder.build() });
    }
    case 'polyline':
    case 'polygon': {
      const { numbers, whole } = readNumbers(element.attributes.get('points') ?? '');
      const builder = new PathBuilder();
      for (let i = 0; i + 1 < numbers.length; i += 2) {
        if (i === 0) builder.moveTo(numbers[0], numbers[1]);
        else builder.lineTo(numbers[i], numbers[i + 1]);
      }
      if (numbers.length < 2) return whole ? null : { ...sound(shapeOf(builder)), problem: 'has no readable points' };
      if (element.name === 'polygon') builder.close();
      const problem = !whole || numbers.length % 2 ? 'has points that are no numbers; it is read up to there' : null;
      return { shape: shapeOf(builder), problem };
    }
    default:
      return null;
  }
}

function sound(shape: Shape): ReadShape {
  return { shape, problem: null };
}

function shapeOf(builder: PathBuilder): Shape {
  return { kind: 'path', path: builder.build() };
}

/** Path data, read up to its first error, as SVG asks. */
function readPathData(d: string): ReadShape | null {
  if (d.trim() === '' || d.trim() === 'none') return null;
  const parsed = svgpath(d);
  const failed = (parsed as unknown as { err: string }).err;
  parsed.abs().unshort();
  const { path, finite } = toPath(parsed);
  let problem: string | null = null;
  if (failed) problem = `has path data that stops making sense${placeOf(failed)}; it is read up to there`;
  else if (!finite) problem = 'has numbers too large to use; it is read up to there';
  return { shape: { kind: 'path', path }, problem };
}

function placeOf(message: string): string {
  const at = /at pos (\d+)/.exec(message);
  return at ? ` at character ${Number(at[1]) + 1}` : '';
}

function toPath(parsed: ReturnType<typeof svgpath>): { path: Path; finite: boolean } {
  const b = new PathBuilder();
  let finite = true;
  parsed.iterate((segment) => {
    if (!finite) return;
    const [command, ...n] = segment as [string, ...number[]];
    if (n.some((value) => !Number.isFinite(value) || Math.abs(value) > 1e9)) {
      finite = false;
      return;
    }
    switch (command) {
      case 'M':
        b.moveTo(n[0], n[1]);
        break;
      case 'L':
        b.lineTo(n[0], n[1]);
        break;
      case 'H':
        b.lineTo(n[0], b.y);
        break;
      case 'V':
        b.lineTo(b.x, n[0]);
        break;
      case 'C':
        b.cubicTo(n[0], n[1], n[2], n[3], n[4], n[5]);
        break;
      case 'Q':
        b.quadraticTo(n[0], n[1], n[2], n[3]);
        break;
      case 'A':
        arcTo(b, n[0], n[1], n[2], n[3] !== 0, n[4] !== 0, n[5], n[6]);
        break;
      case 'Z':
      case 'z':
        b.close();
        break;
    }
  });
  return { path: b.build(), finite };
}
