import { contours } from 'd3-contour';
import { cut, engraved, n, page, score, seeded } from './pen.mjs';

const tileWidth = 312;
const tileHeight = 328;
/** Distance of the height field's samples, in mm. */
const step = 0.25;
const levels = [null, 0.16, 0.3, 0.44, 0.58, 0.72];

/** Six layers of grey board that stack into a relief: each layer's edge cut, the next one's place scored. */
export function estuaryRelief() {
  const columns = Math.round(tileWidth / step);
  const rows = Math.round(tileHeight / step);
  const heights = heightField(columns, rows, 20260311);
  const rings = (level) =>
    contours()
      .size([columns, rows])
      .smooth(true)
      .contour(heights, level)
      .coordinates.flat()
      .filter((ring) => Math.abs(ringArea(ring)) * step * step > 12);
  const lines = levels.flatMap((level, i) => {
    const x0 = 16 + (i % 3) * (tileWidth + 16);
    const y0 = 14 + Math.floor(i / 3) * (tileHeight + 16);
    const toData = (ring) =>
      `M${ring
        .slice(0, -1)
        .map(([x, y]) => `${n(x0 + x * step)} ${n(y0 + y * step)}`)
        .join('L')}Z`;
    const edge = level === null ? [`M${x0} ${y0}h${tileWidth}v${tileHeight}h${-tileWidth}Z`] : rings(level).map(toData);
    const next = levels[i + 1];
    return [
      `<g id="Layer ${i + 1}">`,
      engraved(`Layer ${i + 1}`, x0 + 8, y0 + tileHeight - 8, 5),
      ...(next ? rings(next).map((ring) => score(toData(ring))) : []),
      ...edge.map((d) => cut(d)),
      '</g>',
    ];
  });
  return page(1000, 700, lines);
}

/** Heights 0 to 1: value noise in octaves, sinking to 0 at the edges, with a winding channel cut in. */
function heightField(columns, rows, seed) {
  const random = seeded(seed);
  const octaves = [];
  for (let cells = 4, weight = 1; cells <= 96; cells *= 2, weight *= 0.52) {
    octaves.push({ cells, weight, grid: Float64Array.from({ length: (cells + 2) ** 2 }, random) });
  }
  const total = octaves.reduce((sum, { weight }) => sum + weight, 0);
  const field = new Float64Array(columns * rows);
  for (let j = 0; j < rows; j++) {
    for (let i = 0; i < columns; i++) {
      const u = i / columns;
      const v = j / rows;
      const noise = octaves.reduce((sum, octave) => sum + octave.weight * valueNoise(octave, u, v), 0) / total;
      const edge = Math.min(u, v, 1 - u, 1 - v);
      const shore = Math.min(1, Math.max(0, (edge - 0.03) / 0.2));
      const bend = 0.5 + 0.2 * Math.sin(v * 7) - u;
      const channel = 1 - 0.75 * Math.exp(-((bend / 0.07) ** 2));
      field[j * columns + i] = noise * 1.35 * shore * channel;
    }
  }
  return field;
}

function valueNoise({ cells, grid }, u, v) {
  const x = u * cells;
  const y = v * cells;
  const i = Math.floor(x);
  const j = Math.floor(y);
  const ease = (t) => t * t * (3 - 2 * t);
  const at = (a, b) => grid[(j + b) * (cells + 2) + i + a];
  const s = ease(x - i);
  const t = ease(y - j);
  return (at(0, 0) * (1 - s) + at(1, 0) * s) * (1 - t) + (at(0, 1) * (1 - s) + at(1, 1) * s) * t;
}

function ringArea(ring) {
  let twice = 0;
  for (let i = 1; i < ring.length; i++) twice += ring[i - 1][0] * ring[i][1] - ring[i][0] * ring[i - 1][1];
  return twice / 2;
}
