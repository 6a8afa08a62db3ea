import { seeded } from './pen.mjs';

/** A made-up photo of hills, water and a heron at dusk: its grey values row by row, 0 for black to 255 for white. */
export function heronAtDusk(width = 1800, height = 1200) {
  const random = seeded(1407);
  const waves = Array.from({ length: 6 }, (_, i) => ({ turns: 1.3 + i * 1.7 + random(), from: random() * 7 }));
  const hill = (x, height, rough) =>
    waves.reduce((sum, { turns, from }, i) => sum + (rough / (i + 1)) * Math.sin(x * turns + from), height);
  const greys = new Uint8Array(width * height);
  for (let row = 0; row < height; row++) {
    for (let column = 0; column < width; column++) {
      // Across from 0 to 1.5, down from 0 to 1.
      const [x, y] = [(column + 0.5) / height, (row + 0.5) / height];
      greys[row * width + column] = Math.round(Math.max(0, Math.min(255, sceneAt(x, y, hill) + 8 * (random() - 0.5))));
    }
  }
  return { width, height, greys };
}

function sceneAt(x, y, hill) {
  if (isHeron(x, y)) return 24;
  const shore = 0.74;
  const sun = Math.hypot(x - 0.42, y - 0.3);
  const sky = 235 - 95 * y + 40 * Math.max(0, 1 - sun / 0.35);
  if (sun < 0.06) return 252;
  if (y < hill(x * 3, 0.52, 0.035)) return sky;
  if (y < hill(x * 4 + 2, 0.64, 0.03)) return 128 - 40 * (y - 0.5);
  if (y < shore) return 84 - 60 * (y - 0.62);
  // Water shows the sky again, upside down and in ripples.
  const ripple = 16 * Math.sin(420 * (y - shore) ** 0.75 + 3 * Math.sin(x * 9)) * (0.4 + y - shore);
  return 0.62 * (235 - 95 * (2 * shore - y)) + ripple - 70 * (y - shore);
}

/** Whether a heron stands there: body, neck and head, bill and legs. */
function isHeron(x, y) {
  const ellipse = (cx, cy, rx, ry, turn) => {
    const [dx, dy] = [x - cx, y - cy];
    const [u, v] = [dx * Math.cos(turn) + dy * Math.sin(turn), dy * Math.cos(turn) - dx * Math.sin(turn)];
    return (u / rx) ** 2 + (v / ry) ** 2 < 1;
  };
  const line = (x0, y0, x1, y1, wide) => {
    const along = Math.max(
      0,
      Math.min(1, ((x - x0) * (x1 - x0) + (y - y0) * (y1 - y0)) / ((x1 - x0) ** 2 + (y1 - y0) ** 2)),
    );
    return Math.hypot(x - x0 - along * (x1 - x0), y - y0 - along * (y1 - y0)) < wide;
  };
  return (
    ellipse(1.02, 0.55, 0.13, 0.055, -0.45) ||
    line(1.1, 0.5, 1.13, 0.42, 0.022) ||
    line(1.13, 0.42, 1.09, 0.36, 0.017) ||
    line(1.09, 0.36, 1.12, 0.3, 0.014) ||
    ellipse(1.13, 0.295, 0.035, 0.017, 0.1) ||
    line(1.15, 0.295, 1.24, 0.315, 0.006) ||
    line(0.9, 0.6, 0.86, 0.64, 0.015) ||
    line(1.01, 0.59, 1.0, 0.86, 0.006) ||
    line(1.05, 0.58, 1.06, 0.86, 0.006)
  );
}
