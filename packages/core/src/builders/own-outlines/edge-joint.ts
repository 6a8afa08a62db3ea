import type { Point } from '../../geometry/paths/matrix.ts';
import { appendPath, emptyPath, type Path, PathBuilder } from '../../geometry/paths/path.ts';
import { extrusionOf, overlapOf } from '../assembly/extrusion.ts';
import type { Solid, Vec3 } from '../assembly/space.ts';
import type { Builder, Built, Part, SourceOutline, Stock } from '../builder.ts';
import type { Trouble } from '../fields.ts';
import { playIn } from '../fit-fields.ts';
import { edgeNumbered, type StraightEdge, stockAt, straightEdges, withEdge } from './edges.ts';
import { planFingers } from './joint-fingers.ts';
import { askedOfJoint, type JointNumbers, jointFields } from './joint-numbers.ts';
import type { JoinedPart, JointAsked } from './joint-plan.ts';
import { planTabs } from './joint-tabs.ts';
import { outerSize } from './outer-size.ts';
import { partIds } from './part-ids.ts';
import { alongOf, type Standing, spaceAt } from './placed.ts';

/** Two outlines of the operator's own that meet at a right angle, each at one of its edges. */
export const edgeJoint: Builder<typeof jointFields> = {
  id: 'edge-joint',
  word: 'joint',
  name: 'Joint',
  about: 'Joins two outlines of your own at a right angle, each at one of its edges.',
  takes: ['First part', 'Second part'],
  fields: jointFields,
  asks: askedOfJoint,
  marks: ({ first, second }, outlines) =>
    outlines.map(({ path }, i) => {
      const edge = edgeNumbered(straightEdges(path), i === 0 ? first : second);
      return edge ? lineThrough(edge.from, edge.to) : emptyPath;
    }),
  build: (numbers, stock, outlines) => {
    const edges = outlines.map(({ path }, i) => {
      const number = numbers[i === 0 ? 'first' : 'second'];
      return edgeNumbered(straightEdges(path), number);
    });
    const [first, second] = edges;
    if (first && second) return built(askedOf(numbers, stock, outlines, [first, second]));
    return edges.flatMap((edge, i) => (edge ? [] : [noEdge(i === 0 ? 'first' : 'second', outlines[i], numbers)]));
  },
};

const lineThrough = (from: Point, to: Point): Path =>
  new PathBuilder().moveTo(from.x, from.y).lineTo(to.x, to.y).build();

function noEdge(field: 'first' | 'second', { name, path }: SourceOutline, numbers: JointNumbers): Trouble {
  const count = straightEdges(path).length;
  if (count === 0) return { field, message: `“${name}” has no straight edge of 1 mm or more.`, nearest: null };
  return { field, message: `“${name}” has no straight edge ${numbers[field]}: it has ${count}.`, nearest: 0 };
}

function askedOf(
  numbers: JointNumbers,
  stock: Stock,
  outlines: readonly SourceOutline[],
  [first, second]: readonly [StraightEdge, StraightEdge],
): JointAsked {
  const t = stock.thicknessMm;
  const isCorner = numbers.kind === 'fingers';
  const part = ({ name, path }: SourceOutline, standing: Standing): JoinedPart => {
    const { edge } = standing;
    return { name, path, edge, stock: stockAt(path, edge), standing };
  };
  const flat: Standing = { edge: second, middle: [0, 0, -t], inward: [0, 1, 0], deep: [0, 0, 1], thicknessMm: t };
  const shifted: Vec3 = [-numbers.shift * alongOf(flat)[0], 0, -t];
  return {
    numbers,
    t,
    playMm: playIn(numbers, stock),
    first: part(outlines[0], {
      edge: first,
      middle: isCorner ? [0, 0, -t] : [0, numbers.inset, 0],
      inward: [0, 0, 1],
      deep: [0, 1, 0],
      thicknessMm: t,
    }),
    second: part(outlines[1], { ...flat, middle: shifted }),
  };
}

function built(asked: JointAsked): Built | readonly Trouble[] {
  const { numbers, first, second } = asked;
  const plan = numbers.kind === 'fingers' ? planFingers(asked) : planTabs(asked);
  if (!('firstPlaces' in plan)) return plan;
  const cuts = [
    withEdge(first.path, first.edge, plan.firstPlaces),
    joined(plan.secondPlaces ? withEdge(second.path, second.edge, plan.secondPlaces) : second.path, plan.holes),
  ];
  const solids = [first, second].map(
    ({ standing }, i): Solid => ({ partId: partIds[i], ...spaceAt(standing, cuts[i]) }),
  );
  if (first.stock.bounds.minY < -1e-3 && overlapMm3(solids) > pressedMm3(asked) + 1) {
    const message = `“${first.name}” reaches beyond its edge, into “${second.name}”: take another edge, or shift it.`;
    return [{ field: 'first', message, nearest: null }];
  }
  const parts = [first, second].map(
    ({ name }, i): Part => ({ id: partIds[i], name, cut: cuts[i], score: emptyPath, labels: [] }),
  );
  const { playMm, hull, voids, joints } = plan;
  return {
    parts,
    sizes: { inside: null, outside: outerSize(solids) },
    playMm,
    assembly: { solids, hull, voids, joints },
  };
}

function overlapMm3(solids: readonly Solid[]): number {
  const [a, b] = solids.map(extrusionOf);
  return overlapOf(a, b);
}

/** Tabs that press are meant to overlap: by no more than this. */
const pressedMm3 = ({ numbers, t, playMm, first }: JointAsked) =>
  2 * Math.max(0, -playMm, numbers.narrower) * t * first.edge.lengthMm;

function joined(path: Path, holes: Path): Path {
  const builder = new PathBuilder();
  appendPath(builder, path, true);
  appendPath(builder, holes, true);
  return builder.build();
}
