import type { Point } from './matrix.ts';
import { type Path, PathBuilder } from './path.ts';
import { pieceOf, type Segment, subpathsOf } from './segments.ts';

/** A node of a path with its handles; a handle that is null makes that side straight. */
export interface Node {
  readonly x: number;
  readonly y: number;
  readonly before: Point | null;
  readonly after: Point | null;
}

/** An outline as its nodes. */
export interface NodeLine {
  readonly nodes: readonly Node[];
  readonly closed: boolean;
}

/** Which node: of which outline, counted from 0. */
export interface NodePlace {
  readonly line: number;
  readonly node: number;
}

/** A path as nodes. Curves that end where they began and are closed have one node there. */
export function nodesOf(path: Path): NodeLine[] {
  return [...subpathsOf(path)].map(({ segments, closed }) => {
    const handle = (s: Segment, index: 2 | 4): Point | null => {
      const straight = s[2] === s[0] && s[3] === s[1] && s[4] === s[6] && s[5] === s[7];
      return straight ? null : { x: s[index], y: s[index + 1] };
    };
    const nodes: Node[] = segments.map((s, i) => {
      const into = i > 0 ? segments[i - 1] : closed ? segments[segments.length - 1] : null;
      return { x: s[0], y: s[1], before: into && handle(into, 4), after: handle(s, 2) };
    });
    const last = segments[segments.length - 1];
    if (!closed) nodes.push({ x: last[6], y: last[7], before: handle(last, 4), after: null });
    return { nodes, closed };
  });
}

/** A path through nodes with their handles; lines of fewer than two nodes are left out. */
export function pathOfNodes(lines: readonly NodeLine[]): Path {
  const builder = new PathBuilder();
  for (const { nodes, closed } of lines) {
    if (nodes.length < 2) continue;
    builder.moveTo(nodes[0].x, nodes[0].y);
    const count = closed ? nodes.length : nodes.length - 1;
    for (let i = 0; i < count; i++) {
      const [from, to] = [nodes[i], nodes[(i + 1) % nodes.length]];
      const straight = from.after === null && to.before === null;
      // The closing edge of an outline, where it is straight, is drawn by closing it.
      if (straight && closed && i === count - 1) continue;
      if (straight) builder.lineTo(to.x, to.y);
      else {
        const [p, q] = [from.after ?? from, to.before ?? to];
        builder.cubicTo(p.x, p.y, q.x, q.y, to.x, to.y);
      }
    }
    if (closed) builder.close();
  }
  return builder.build();
}

function changeNode(lines: readonly NodeLine[], { line, node }: NodePlace, change: (node: Node) => Node): NodeLine[] {
  return lines.map((known, i) =>
    i === line ? { ...known, nodes: known.nodes.map((old, j) => (j === node ? change(old) : old)) } : known,
  );
}

/** Moves a node to a point, its handles with it. */
export function moveNode(lines: readonly NodeLine[], place: NodePlace, x: number, y: number): NodeLine[] {
  return changeNode(lines, place, (node) => {
    const shift = (handle: Point | null) => handle && { x: handle.x + x - node.x, y: handle.y + y - node.y };
    return { x, y, before: shift(node.before), after: shift(node.after) };
  });
}

/** Moves a handle. Where the node is smooth, the other handle turns with it and stays as long. */
export function moveHandle(
  lines: readonly NodeLine[],
  place: NodePlace,
  side: 'before' | 'after',
  to: Point,
): NodeLine[] {
  return changeNode(lines, place, (node) => {
    const other = side === 'before' ? 'after' : 'before';
    const opposite = node[other];
    if (!isSmooth(node) || opposite === null) return { ...node, [side]: to };
    const length = Math.hypot(opposite.x - node.x, opposite.y - node.y);
    const [dx, dy] = [node.x - to.x, node.y - to.y];
    const size = Math.hypot(dx, dy);
    if (size < 1e-9) return { ...node, [side]: to };
    return { ...node, [side]: to, [other]: { x: node.x + (dx / size) * length, y: node.y + (dy / size) * length } };
  });
}

/** Whether a curve passes through a node without a kink, within a tenth of a degree. */
export function isSmooth({ x, y, before, after }: Node): boolean {
  if (!before || !after) return false;
  const [ax, ay, bx, by] = [x - before.x, y - before.y, after.x - x, after.y - y];
  return ax * bx + ay * by > 0 && Math.abs(ax * by - ay * bx) < 0.002 * Math.hypot(ax, ay) * Math.hypot(bx, by);
}

/** Adds a node in the middle of things: on the edge that starts at a node, at parameter `t`. Nothing looks different. */
export function addNode(lines: readonly NodeLine[], { line, node }: NodePlace, t: number): NodeLine[] {
  return lines.map((known, i) => {
    const next = (node + 1) % known.nodes.length;
    if (i !== line || (!known.closed && next === 0)) return known;
    const [from, to] = [known.nodes[node], known.nodes[next]];
    const straight = from.after === null && to.before === null;
    const [p, q] = [from.after ?? from, to.before ?? to];
    const segment: Segment = [from.x, from.y, p.x, p.y, q.x, q.y, to.x, to.y];
    const [a, b] = [pieceOf(segment, 0, t), pieceOf(segment, t, 1)];
    const added: Node = straight
      ? { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t, before: null, after: null }
      : { x: a[6], y: a[7], before: { x: a[4], y: a[5] }, after: { x: b[2], y: b[3] } };
    const nodes = [...known.nodes];
    if (!straight) {
      nodes[node] = { ...from, after: { x: a[2], y: a[3] } };
      nodes[next] = { ...nodes[next], before: { x: b[4], y: b[5] } };
    }
    nodes.splice(node + 1, 0, added);
    return { ...known, nodes };
  });
}

/** Takes nodes away; the edges beside each become one, with the handles that are left. */
export function deleteNodes(lines: readonly NodeLine[], places: readonly NodePlace[]): NodeLine[] {
  return lines
    .map((known, i) => ({
      ...known,
      nodes: known.nodes.filter((_, j) => !places.some(({ line, node }) => line === i && node === j)),
    }))
    .filter(({ nodes }) => nodes.length >= 2);
}

/** Makes nodes smooth: their handles in line with their neighbours, a third of the way to each. */
export function smoothNodes(lines: readonly NodeLine[], places: readonly NodePlace[]): NodeLine[] {
  return places.reduce<NodeLine[]>(
    (done, place) => {
      const { nodes, closed } = done[place.line];
      const beside = (distance: number) => {
        const j = place.node + distance;
        return closed ? nodes[(j + nodes.length) % nodes.length] : nodes[j];
      };
      const [previous, next] = [beside(-1), beside(1)];
      if (!previous || !next) return done;
      return changeNode(done, place, (node) => {
        const [dx, dy] = [next.x - previous.x, next.y - previous.y];
        const size = Math.hypot(dx, dy);
        if (size < 1e-9) return node;
        const reach = (other: Node) => Math.hypot(other.x - node.x, other.y - node.y) / 3 / size;
        const [back, on] = [reach(previous), reach(next)];
        return {
          ...node,
          before: { x: node.x - dx * back, y: node.y - dy * back },
          after: { x: node.x + dx * on, y: node.y + dy * on },
        };
      });
    },
    [...lines],
  );
}

/** Makes nodes corners: without handles, so that edges between two of them are straight. */
export function cornerNodes(lines: readonly NodeLine[], places: readonly NodePlace[]): NodeLine[] {
  return places.reduce<NodeLine[]>(
    (done, place) => changeNode(done, place, (node) => ({ ...node, before: null, after: null })),
    [...lines],
  );
}

/** Makes the edges straight that run between two of the nodes. */
export function straightenEdges(lines: readonly NodeLine[], places: readonly NodePlace[]): NodeLine[] {
  return lines.map((known, line) => {
    const { nodes, closed } = known;
    const chosen = nodes.map((_, node) => places.some((place) => place.line === line && place.node === node));
    const edge = (from: number, to: number) =>
      chosen[from] && chosen[to] && from !== to && (closed || Math.abs(from - to) === 1);
    const next = (i: number) => (i + 1) % nodes.length;
    const last = (i: number) => (i - 1 + nodes.length) % nodes.length;
    return {
      ...known,
      nodes: nodes.map((node, i) => ({
        ...node,
        after: edge(i, next(i)) ? null : node.after,
        before: edge(last(i), i) ? null : node.before,
      })),
    };
  });
}

/** Breaks an outline at a node: a closed one opens there, an open one falls into two. */
export function breakAt(lines: readonly NodeLine[], { line, node }: NodePlace): NodeLine[] {
  return lines.flatMap((known, i) => {
    if (i !== line) return [known];
    const { nodes, closed } = known;
    const here = nodes[node];
    if (closed) {
      const around = [...nodes.slice(node), ...nodes.slice(0, node)];
      const ends = [{ ...here, before: null }, ...around.slice(1), { ...here, after: null }];
      return [{ nodes: ends, closed: false }];
    }
    if (node === 0 || node === nodes.length - 1) return [known];
    return [
      { nodes: [...nodes.slice(0, node), { ...here, after: null }], closed: false },
      { nodes: [{ ...here, before: null }, ...nodes.slice(node + 1)], closed: false },
    ];
  });
}
