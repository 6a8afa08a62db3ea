// How far the head moves unlit: routes over seeded closed outlines and points, against the best known and a bound.
import { findRoute, improveTour, tourLength } from '@lambent/core/plan';
import { numbersFrom } from './numbers.mjs';

/** Closed outlines of many sides, from 2 to 8 mm wide, at random on a bed that grows with their number. */
function outlines(count, seed) {
  const random = numbersFrom(seed);
  const side = 12 * Math.sqrt(count);
  return Array.from({ length: count }, () => {
    const [x, y, r] = [random() * side, random() * side, 1 + random() * 3];
    const sides = 3 + Math.floor(random() * 20);
    const points = new Float64Array(sides * 2);
    for (let i = 0; i < sides; i++) {
      const angle = (i / sides + random() * 0.02) * 2 * Math.PI;
      points[2 * i] = x + r * Math.cos(angle);
      points[2 * i + 1] = y + r * Math.sin(angle);
    }
    return { line: { points, closed: true }, entries: null };
  });
}

const start = { x: 0, y: 0 };

function travel(lines, legs) {
  let { x, y } = start;
  let sum = 0;
  for (const { index, node } of legs) {
    const { points } = lines[index].line;
    sum += Math.hypot(points[2 * node] - x, points[2 * node + 1] - y);
    [x, y] = [points[2 * node], points[2 * node + 1]];
  }
  return sum;
}

/** The order the head would take without any search: as drawn, each entered at its first node. */
const asDrawn = (lines) => lines.map((_, index) => ({ index, node: 0 }));

/**
 * The Held-Karp lower bound on a round trip, by subgradient steps on the multipliers of minimum 1-trees
 * (Held and Karp, "The Traveling-Salesman Problem and Minimum Spanning Trees: Part II", 1971).
 */
export function heldKarpBound(xs, ys, rounds = 500) {
  const n = xs.length;
  const pi = new Float64Array(n);
  const last = new Int32Array(n);
  const degree = new Int32Array(n);
  const key = new Float64Array(n);
  const parent = new Int32Array(n);
  const distance = (i, j) => Math.hypot(xs[i] - xs[j], ys[i] - ys[j]) + pi[i] + pi[j];
  let [bound, step] = [
    0,
    (0.7 * Math.sqrt(n * (Math.max(...xs) - Math.min(...xs)) * (Math.max(...ys) - Math.min(...ys))) * 0.02) / n,
  ];
  for (let round = 0; round < rounds; round++) {
    degree.fill(0);
    const inTree = new Uint8Array(n);
    inTree[0] = inTree[1] = 1;
    for (let k = 2; k < n; k++) {
      key[k] = distance(1, k);
      parent[k] = 1;
    }
    let sum = 0;
    for (let count = 2; count < n; count++) {
      let best = -1;
      for (let k = 2; k < n; k++) if (!inTree[k] && (best < 0 || key[k] < key[best])) best = k;
      inTree[best] = 1;
      sum += key[best];
      degree[best]++;
      degree[parent[best]]++;
      for (let k = 2; k < n; k++) {
        if (inTree[k]) continue;
        const way = distance(best, k);
        if (way < key[k]) {
          key[k] = way;
          parent[k] = best;
        }
      }
    }
    const ends = Array.from({ length: n - 1 }, (_, k) => k + 1).sort((a, b) => distance(0, a) - distance(0, b));
    for (const end of ends.slice(0, 2)) {
      sum += distance(0, end);
      degree[end]++;
    }
    degree[0] = 2;
    bound = Math.max(bound, sum - 2 * pi.reduce((total, value) => total + value, 0));
    for (let k = 0; k < n; k++) {
      const gradient = degree[k] - 2;
      pi[k] += step * (0.7 * gradient + 0.3 * last[k]);
      last[k] = gradient;
    }
    step *= 0.99;
  }
  return bound;
}

/** @returns rows of travel in mm: as planned, the best known by a much longer search, and as drawn; and the points against the bound */
export function benchTravel() {
  const rows = [100, 1000, 10_000].map((count) => {
    const lines = outlines(count, count);
    const began = performance.now();
    const planned = travel(lines, findRoute(lines, start, true));
    const ms = performance.now() - began;
    const best = Math.min(planned, travel(lines, findRoute(lines, start, true, count > 5000 ? 10 : 40)));
    return { count, planned, best, drawn: travel(lines, asDrawn(lines)), ms };
  });
  const random = numbersFrom(7);
  const count = 1000;
  const xs = Float64Array.from({ length: count }, () => random() * 300);
  const ys = Float64Array.from({ length: count }, () => random() * 300);
  const [restX, restY] = [xs.slice(1), ys.slice(1)];
  const stops = { entryX: restX, entryY: restY, exitX: restX, exitY: restY };
  const home = { x: xs[0], y: ys[0] };
  const legs = findRoute(
    Array.from(restX, (x, i) => ({ line: { points: Float64Array.of(x, restY[i]), closed: true }, entries: null })),
    home,
    true,
  );
  const first = { order: Int32Array.from(legs, ({ index }) => index), flipped: new Uint8Array(count - 1) };
  const tour = improveTour(stops, first, home, home, 0);
  return { rows, points: { count, length: tourLength(stops, tour, home, home), bound: heldKarpBound(xs, ys) } };
}
