// Offsetting outlines of 100,000 nodes in all, as ratios to the clipping library's own call on the same input.
import { offsetOutlines, PathBuilder, plainOffset } from '@lambent/core';
import { Clipper, EndType, JoinType } from 'clipper2-ts';

const rounds = 5;
const grid = 1e-4;

/** Outlines of so many nodes each, wavy circles in rows. */
function outlines(count, nodes) {
  return Array.from({ length: count }, (_, k) => {
    const builder = new PathBuilder();
    for (let i = 0; i < nodes; i++) {
      const angle = (2 * Math.PI * i) / nodes;
      const radius = 20 + 3 * Math.sin(angle * 9) + 0.3 * Math.sin(angle * 71);
      const [x, y] = [50 * (k % 10) + radius * Math.cos(angle), 50 * Math.floor(k / 10) + radius * Math.sin(angle)];
      if (i === 0) builder.moveTo(x, y);
      else builder.lineTo(x, y);
    }
    return builder.close().build();
  });
}

function median(times) {
  return times.sort((a, b) => a - b)[times.length >> 1];
}

function once(work) {
  const start = performance.now();
  work();
  return performance.now() - start;
}

/** @returns rows of what was offset, our time and the library's, in ms */
export function benchOffsets() {
  const rows = [];
  for (const [count, nodes] of [
    [2, 1000],
    [100, 1000],
  ]) {
    const paths = outlines(count, nodes);
    const rings = paths.map(({ coords }) => {
      const ring = [];
      for (let i = 0; i < coords.length; i += 2)
        ring.push({ x: Math.round(coords[i] / grid), y: Math.round(coords[i + 1] / grid) });
      return ring;
    });
    for (const by of [1, -1]) {
      const [ours, theirs] = [[], []];
      for (let round = 0; round < rounds; round++) {
        theirs.push(once(() => Clipper.inflatePaths(rings, by / grid, JoinType.Round, EndType.Polygon, 4, 20)));
        ours.push(
          once(() =>
            offsetOutlines(
              paths.map((path) => ({ path, rule: 'nonzero' })),
              { ...plainOffset, by },
            ),
          ),
        );
      }
      rows.push({ nodes: count * nodes, by, ms: median(ours), libraryMs: median(theirs) });
    }
  }
  return rows;
}
