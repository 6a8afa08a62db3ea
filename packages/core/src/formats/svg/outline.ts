import type { Shape } from '../../document/shape.ts';
import { PathBuilder } from '../../geometry/paths/path.ts';
import { readPathData } from './path-data.ts';
import { pathDataOf, placing } from './placed-by.ts';
import type { Declared } from './specified.ts';
import { type Axis, type LengthContext, readNumbers } from './values.ts';
import type { SvgElement } from './xml.ts';

export interface ReadShape {
  readonly shape: Shape;
  /** What could not be read of it, as the end of a sentence; null when all was. */
  readonly problem: string | null;
}

/** The shape of a drawn element in user units; null when by SVG's rules it draws nothing. */
export function readShape(element: SvgElement, own: Declared, context: LengthContext): ReadShape | null {
  const given = (name: string, axis: Axis) => placing(element, own, name, context, axis);
  const number = (name: string) => given(name, axisOf[name] ?? 'diagonal') ?? 0;
  switch (element.name) {
    case 'path':
      return ofPathData(pathDataOf(element, own));
    case 'rect': {
      const width = number('width');
      const height = number('height');
      if (!(width > 0 && height > 0)) return null;
      const rx = given('rx', 'x');
      const ry = given('ry', 'y');
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
      const circle = element.name === 'circle';
      // Of an ellipse's radii, one that is not given is as the other.
      const rx = circle ? number('r') : (given('rx', 'x') ?? number('ry'));
      const ry = circle ? number('r') : (given('ry', 'y') ?? number('rx'));
      if (!(rx > 0 && ry > 0)) return null;
      return sound({ kind: 'ellipse', cx: number('cx'), cy: number('cy'), rx, ry });
    }
    case 'line': {
      const builder = new PathBuilder().moveTo(number('x1'), number('y1')).lineTo(number('x2'), number('y2'));
      return sound({ kind: 'path', path: builder.build() });
    }
    case 'polyline':
    case 'polygon': {
      const { numbers, whole } = readNumbers(element.attributes.points ?? '');
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

/** What per cent is of, by attribute; a circle's radius goes by the diagonal. */
const axisOf: Record<string, Axis> = {
  x: 'x',
  x1: 'x',
  x2: 'x',
  cx: 'x',
  rx: 'x',
  width: 'x',
  y: 'y',
  y1: 'y',
  y2: 'y',
  cy: 'y',
  ry: 'y',
  height: 'y',
};

function sound(shape: Shape): ReadShape {
  return { shape, problem: null };
}

function shapeOf(builder: PathBuilder): Shape {
  return { kind: 'path', path: builder.build() };
}

function ofPathData(d: string): ReadShape | null {
  if (d.trim() === '' || d.trim() === 'none') return null;
  const { path, brokenAt, tooLarge } = readPathData(d);
  let problem: string | null = null;
  if (tooLarge) problem = 'has numbers too large to use; it is read up to there';
  else if (brokenAt !== null)
    problem = `has path data that stops making sense at character ${brokenAt}; it is read up to there`;
  return { shape: { kind: 'path', path }, problem };
}
