/** How far below the mean a level lies where little differs. */
const k = 0.3;
/** The greatest deviation that greys can have. */
const greatest = 128;

/**
 * A level for each pixel by the mean and the deviation around it, for paper that is lit unevenly: what is darker is
 * written on it (Sauvola and Pietikäinen, 2000).
 *
 * @param lumas row by row, from 0 for black to 255 for white.
 * @param windowPx how wide the surroundings are, in pixels.
 */
export function localLevels(lumas: Float32Array, width: number, windowPx: number): Float32Array {
  const height = lumas.length / width;
  const across = width + 1;
  const sums = new Float64Array(across * (height + 1));
  const squares = new Float64Array(across * (height + 1));
  for (let y = 0; y < height; y++) {
    let [sum, square] = [0, 0];
    for (let x = 0; x < width; x++) {
      const luma = lumas[y * width + x];
      sum += luma;
      square += luma * luma;
      sums[(y + 1) * across + x + 1] = sums[y * across + x + 1] + sum;
      squares[(y + 1) * across + x + 1] = squares[y * across + x + 1] + square;
    }
  }
  const half = Math.max(1, Math.round(windowPx / 2));
  const levels = new Float32Array(lumas.length);
  for (let y = 0; y < height; y++) {
    const [above, below] = [Math.max(0, y - half) * across, Math.min(height, y + half + 1) * across];
    const rows = (below - above) / across;
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.max(0, x - half), Math.min(width, x + half + 1)];
      const count = rows * (right - left);
      const mean = (sums[below + right] - sums[above + right] - sums[below + left] + sums[above + left]) / count;
      const square =
        (squares[below + right] - squares[above + right] - squares[below + left] + squares[above + left]) / count;
      const deviation = Math.sqrt(Math.max(0, square - mean * mean));
      levels[y * width + x] = mean * (1 + k * (deviation / greatest - 1));
    }
  }
  return levels;
}
