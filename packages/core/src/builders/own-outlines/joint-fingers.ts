import { appendPath, emptyPath, PathBuilder } from '../../geometry/paths/path.ts';
import type { Trouble } from '../fields.ts';
import { oddPieces, rounded, roundedDown } from '../rounding.ts';
import { fromEdge, type Place } from './edges.ts';
import { jointFields } from './joint-numbers.ts';
import type { JoinedPart, JointAsked, JointPlan } from './joint-plan.ts';
import { alongOf, spaceAt } from './placed.ts';
import { hasStock, isAllStock } from './stock-in.ts';

/** From where to where along x. */
type Range = readonly [from: number, to: number];

/** The stretch of x that a part's edge has, and the way from x to a place along it. */
function lieOf({ edge, standing }: JoinedPart): { readonly range: Range; readonly along: (x: number) => number } {
  const [way] = alongOf(standing);
  const [middle] = standing.middle;
  const half = edge.lengthMm / 2;
  return { range: [middle - half, middle + half], along: (x) => way * (x - middle) };
}

/** Fingers of two edges that make a corner: what they have in common is shared out in equal pieces in turn. */
export function planFingers({ numbers, t, playMm, first, second }: JointAsked): JointPlan | Trouble[] {
  const [a, b] = [lieOf(first), lieOf(second)];
  const from = Math.max(a.range[0], b.range[0]);
  const to = Math.min(a.range[1], b.range[1]);
  const lengthMm = to - from;
  const whole: Range = [Math.min(a.range[0], b.range[0]), Math.max(a.range[1], b.range[1])];
  const troubles: Trouble[] = [];
  for (const [field, part] of [
    ['first', first],
    ['second', second],
  ] as const) {
    if (isSquare(part, t, whole[1] - whole[0])) continue;
    const message = `Fingers need square corners at the edge of “${part.name}”, and ${rounded(t)} mm of stock behind it: take another edge, or tabs.`;
    troubles.push({ field, message, nearest: null });
  }
  if (lengthMm < 3 * t) {
    const message = `The edges have ${rounded(Math.max(0, lengthMm))} mm in common, and fingers need ${rounded(3 * t)} mm.`;
    troubles.push({ field: numbers.shift === 0 ? 'first' : 'shift', message, nearest: numbers.shift === 0 ? null : 0 });
  }
  if (troubles.length > 0) return troubles;
  const pieces = oddPieces(lengthMm, numbers.fingerWidth);
  const most = lengthMm / 3;
  if (pieces < 3 || lengthMm / pieces < t) {
    const message = `Fingers of ${numbers.fingerWidth} mm do not do: they can be from ${rounded(t)} mm, the stock's thickness, to ${rounded(most)} mm, a third of the edge.`;
    const nearest = pieces < 3 ? roundedDown(most) : Math.max(rounded(t), jointFields.fingerWidth.least);
    return [{ field: 'fingerWidth', message, nearest }];
  }
  const boundary = (k: number) => from + (lengthMm * k) / pieces;
  const recess = playMm / 4;
  // Where the second part goes on beyond the first, it has the play all on its side; a sliver that is too thin goes.
  const hasShoulder = [from - b.range[0], b.range[1] - to].map((mm) => mm > 2 * recess + t / 2);
  const secondEnds: Range = [hasShoulder[0] ? from : b.range[0], hasShoulder[1] ? to : b.range[1]];
  /** Gaps of a part, each with what the fingers beside it stay behind. */
  const gaps = (isFirst: boolean): Range[] =>
    Array.from({ length: pieces }, (_, k) => k)
      .filter((k) => (k % 2 === 1) === isFirst)
      .map((k): Range => {
        const low = k > 0 ? boundary(k) - recess : hasShoulder[0] ? from - 2 * recess : b.range[0];
        const isLast = k === pieces - 1;
        const high = !isLast ? boundary(k + 1) + recess : hasShoulder[1] ? to + 2 * recess : b.range[1];
        return [low, high];
      });
  const inSecond = new PathBuilder();
  appendPath(inSecond, second.path, true);
  const corner: Place[] = [
    [b.along(secondEnds[0]), 0],
    [b.along(secondEnds[1]), 0],
    [b.along(secondEnds[1]), t],
    [b.along(secondEnds[0]), t],
  ];
  inSecond.ring(
    corner.flatMap((place) => {
      const { x, y } = fromEdge(second.edge, place);
      return [x, y];
    }),
  );
  return {
    firstPlaces: edgeWith(a, gaps(true), t),
    secondPlaces: edgeWith(b, gaps(false), t),
    playMm,
    holes: emptyPath,
    hull: [spaceAt(first.standing, first.path), spaceAt(second.standing, inSecond.build())],
    voids: [],
    joints: [
      {
        name: `${first.name} and ${second.name}`,
        region: {
          min: [hasShoulder[0] ? whole[0] : a.range[0], 0, -t],
          max: [hasShoulder[1] ? whole[1] : a.range[1], t, 0],
        },
        axis: 0,
        faces: 'cut edges',
        gapMm: playMm / 2,
      },
    ],
  };
}

/** Whether the stock behind an edge, as deep as it is thick, is a rectangle that ends where the edge does. */
function isSquare({ edge, stock }: JoinedPart, t: number, reachMm: number): boolean {
  const half = edge.lengthMm / 2;
  const beside = [
    { minX: -half - reachMm, minY: 0, maxX: -half, maxY: t },
    { minX: half, minY: 0, maxX: half + reachMm, maxY: t },
  ];
  return !hasStock(stock, beside) && isAllStock(stock, [{ minX: -half, minY: 0, maxX: half, maxY: t }]);
}

/** An edge with gaps that are as deep as the stock is thick. */
function edgeWith({ range, along }: ReturnType<typeof lieOf>, gaps: readonly Range[], t: number) {
  const places: Place[] = [];
  const add = (x: number, depth: number) => places.push([along(x), depth]);
  if (!(gaps[0][0] <= range[0])) add(range[0], 0);
  for (const [low, high] of gaps) {
    if (low > range[0]) add(low, 0);
    add(low, t);
    add(high, t);
    if (high < range[1]) add(high, 0);
  }
  if (!(gaps[gaps.length - 1][1] >= range[1])) add(range[1], 0);
  const isAlong = along(1) > along(0);
  return isAlong ? places : places.reverse();
}
