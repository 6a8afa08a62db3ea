// Offsetting outlines of 100,000 nodes in all, as ratios to the clipping library's own call on the same input.
import { flatten, offsetOutlines, PathBuilder, plainOffset } from '@lambent/core/geometry';
import { Clipper, EndType, JoinType } from 'clipper2-ts';

const rounds = { 2: 25, 100: 5 };
const grid = 1e-4;
/** How far the library's chords stray from curves and round corners, in mm. */
const tolerance = 0.002;

/** Wavy circles in rows, of so many nodes each; `ripple` mm of it are finer than most distances can follow. */
function outlines(count, nodes, { curved, ripple }) {
  const step = (2 * Math.PI) / nodes;
  const at = (k, angle) => {
    const radius = 20 + 3 * Math.sin(angle * 9) + ripple * Math.sin(angle * 71);
    const slope = 27 * Math.cos(angle * 9) + 71 * ripple * Math.cos(angle * 71);
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const [x, y] = [50 * (k % 10) + radius * cos, 50 * Math.floor(k / 10) + radius * sin];
    return { x, y, dx: ((slope * cos - radius * sin) * step) / 3, dy: ((slope * sin + radius * cos) * step) / 3 };
  };
  return Array.from({ length: count }, (_, k) => {
    let from = at(k, 0);
    const builder = new PathBuilder().moveTo(from.x, from.y);
    for (let i = 1; i <= nodes; i++) {
      const to = at(k, i * step);
      if (curved) builder.cubicTo(from.x + from.dx, from.y + from.dy, to.x - to.dx, to.y - to.dy, to.x, to.y);
      else if (i < nodes) builder.lineTo(to.x, to.y);
      from = to;
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

const kinds = {
  'straight, rippled': { curved: false, ripple: 0.3 },
  'curved, smooth': { curved: true, ripple: 0 },
  'curved, rippled': { curved: true, ripple: 0.3 },
};

/** @returns rows of what was offset, our time and the library's, in ms */
export function benchOffsets() {
  const rows = [];
  for (const [count, kind] of [2, 100].flatMap((count) => Object.keys(kinds).map((kind) => [count, kind]))) {
    const nodes = 1000;
    const paths = outlines(count, nodes, kinds[kind]);
    const rings = paths
      .flatMap((path) => flatten(path, tolerance))
      .map(({ points }) => {
        const ring = [];
        for (let i = 0; i < points.length; i += 2)
          ring.push({ x: Math.round(points[i] / grid), y: Math.round(points[i + 1] / grid) });
        return ring;
      });
    for (const by of [1, -1]) {
      const [ours, theirs] = [[], []];
      for (let round = 0; round < rounds[count]; round++) {
        theirs.push(
          once(() => Clipper.inflatePaths(rings, by / grid, JoinType.Round, EndType.Polygon, 4, tolerance / grid)),
        );
        ours.push(
          once(() =>
            offsetOutlines(
              paths.map((path) => ({ path, rule: 'nonzero' })),
              { ...plainOffset, by },
            ),
          ),
        );
      }
      rows.push({ nodes: count * nodes, kind, by, ms: median(ours), libraryMs: median(theirs) });
    }
  }
  return rows;
}
