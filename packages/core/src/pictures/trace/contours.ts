/** Numbers on a raster, row by row: above 0 in what is traced, below it around. */
export interface Field {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

/** Which way a contour goes: up, to the right, down, to the left. */
const forwards = [
  [0, -1],
  [1, 0],
  [0, 1],
  [-1, 0],
] as const;

/**
 * The closed lines along which a field is 0, at sub-pixel places: between two neighbouring pixels where it would be 0 if
 * it went evenly from one to the other (marching squares: Lorensen and Cline, 1987, in the plane). What is above 0 lies
 * on their right. Where two ways part, the mean of the four pixels decides. Beyond the edge the field is below 0.
 *
 * @returns for each contour its points, x and y in turn, in pixels from the picture's top left corner
 */
export function contoursOf({ width, height, values }: Field): Float64Array[] {
  // Around it a frame of one pixel.
  const across = width + 2;
  const framed = new Float32Array(across * (height + 2)).fill(beyond);
  for (let y = 0; y < height; y++) framed.set(values.subarray(y * width, (y + 1) * width), (y + 1) * across + 1);
  const walk = new Walk(framed, across);
  const contours: Float64Array[] = [];
  for (let y = 1; y <= height; y++) {
    const row = y * across;
    for (let x = 0; x <= width; x++) {
      if (framed[row + x] <= 0 && framed[row + x + 1] > 0 && !walk.hasPassed(row + x))
        contours.push(walk.from(row + x));
    }
  }
  return contours;
}

/** What the frame holds: contours end at the edge of the outermost pixels. */
const beyond = Number.NEGATIVE_INFINITY;

class Walk {
  private readonly passed: Uint8Array;
  private points = new Float64Array(1024);
  private count = 0;

  constructor(
    private readonly field: Float32Array,
    private readonly across: number,
  ) {
    this.passed = new Uint8Array(field.length);
  }

  /** Whether a contour went up between a pixel and its right neighbour. */
  hasPassed(pixel: number): boolean {
    return this.passed[pixel] === 1;
  }

  /** The contour that goes up between a pixel and its right neighbour, back to there. */
  from(start: number): Float64Array {
    const { field, across, passed } = this;
    this.count = 0;
    let [left, right, direction] = [start, start + 1, 0];
    do {
      if (direction === 0) passed[left] = 1;
      this.put(left, right);
      const [dx, dy] = forwards[direction];
      const step = dy * across + dx;
      const isLeft = field[left + step] > 0;
      const isRight = field[right + step] > 0;
      if (isLeft && (isRight || field[left] + field[right] + field[left + step] + field[right + step] > 0)) {
        right = left + step;
        direction = (direction + 3) % 4;
      } else if (isRight) {
        left += step;
        right += step;
      } else {
        left = right + step;
        direction = (direction + 1) % 4;
      }
    } while (left !== start || right !== start + 1);
    return this.points.slice(0, this.count);
  }

  /** A point between a pixel that is out and its neighbour that is in. */
  private put(out: number, within: number): void {
    if (this.count + 2 > this.points.length) {
      const longer = new Float64Array(2 * this.points.length);
      longer.set(this.points);
      this.points = longer;
    }
    const { field, across } = this;
    const t = field[out] === beyond ? 0.5 : field[out] / (field[out] - field[within]);
    const [x, y] = [out % across, Math.floor(out / across)];
    // The middle of the first pixel lies half a pixel from the corner, and behind the frame.
    this.points[this.count++] = x + t * ((within % across) - x) - 0.5;
    this.points[this.count++] = y + t * (Math.floor(within / across) - y) - 0.5;
  }
}
