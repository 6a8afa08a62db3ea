/** Each pixel is looked at in so many places, across and down. */
const samples = 4;

/**
 * A made-up scan of a kingfisher on its perch, black on paper, with a scribble in the corner: its grey values row by
 * row, 0 for black to 255 for white. The bird lies within x 0.08 to 1.2 and y 0.08 to 0.92 of the height, the scribble
 * right of x 1.25.
 */
export function kingfisher(width = 1500, height = 1000) {
  const greys = new Uint8Array(width * height);
  for (let row = 0; row < height; row++) {
    for (let column = 0; column < width; column++) {
      let inked = 0;
      for (let k = 0; k < samples * samples; k++) {
        const x = (column + ((k % samples) + 0.5) / samples) / height;
        const y = (row + (Math.floor(k / samples) + 0.5) / samples) / height;
        if (isInked(x, y)) inked++;
      }
      greys[row * width + column] = Math.round(250 - (225 * inked) / (samples * samples));
    }
  }
  return { width, height, greys };
}

const ellipse = (x, y, cx, cy, rx, ry, turn = 0) => {
  const [dx, dy] = [x - cx, y - cy];
  const [u, v] = [dx * Math.cos(turn) + dy * Math.sin(turn), dy * Math.cos(turn) - dx * Math.sin(turn)];
  return (u / rx) ** 2 + (v / ry) ** 2 < 1;
};

/** A bar that narrows evenly from one end to the other. */
const wedge = (x, y, x0, y0, half0, x1, y1, half1) => {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const along = ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy);
  if (along < 0 || along > 1) return false;
  const off = Math.abs((x - x0) * dy - (y - y0) * dx) / Math.hypot(dx, dy);
  return off < half0 + along * (half1 - half0);
};

function isInked(x, y) {
  // The eye is a hole.
  if (ellipse(x, y, 0.47, 0.25, 0.024, 0.024)) return false;
  const bird =
    ellipse(x, y, 0.5, 0.27, 0.14, 0.125) ||
    wedge(x, y, 0.4, 0.28, 0.05, 0.1, 0.33, 0.004) ||
    ellipse(x, y, 0.66, 0.48, 0.27, 0.17, 0.75) ||
    wedge(x, y, 0.78, 0.6, 0.08, 0.98, 0.86, 0.035) ||
    wedge(x, y, 0.62, 0.62, 0.02, 0.62, 0.76, 0.02);
  const perch = wedge(x, y, 0.3, 0.77, 0.03, 1.12, 0.73, 0.018);
  return bird || perch || isScribble(x, y);
}

/** Somebody tried the pen. */
function isScribble(x, y) {
  if (x < 1.27 || x > 1.46) return false;
  const line = 0.14 + 0.05 * Math.sin(60 * x) + 0.1 * (x - 1.27);
  return Math.abs(y - line) < 0.012;
}
