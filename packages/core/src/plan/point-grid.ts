/** So many points share a cell on average. */
const pointsPerCell = 2;
/** When so few of the points that a grid was laid over are left in it, a coarser one is laid over those. */
const leftToRebuild = 0.25;
const fewestToRebuild = 64;

/** Is told a point and how far it is, squared; answers how far to look on, squared. */
type Found = (point: number, squared: number) => number;

/**
 * Points in a uniform grid. The nearest to a place is found, and points are taken out one by one: each in about constant
 * time where points are spread evenly. Of points equally near, that of the highest number counts as nearer.
 * (Bentley, Weide and Yao, "Optimal Expected-Time Algorithms for Closest Point Problems", 1980.)
 */
export class PointGrid {
  private minX = 0;
  private minY = 0;
  private size = 1;
  private columns = 1;
  private rows = 1;
  /** Where the points of each cell begin in `members`, and where those that are left end. */
  private starts = new Int32Array(0);
  private ends = new Int32Array(0);
  private members = new Int32Array(0);
  /** By point, its place among the members. */
  private readonly places: Int32Array;
  private left = 0;
  private laid = 0;

  /** @param xs where the points are, in mm; taken as they are, not copied @param ys likewise */
  constructor(
    private readonly xs: Float64Array,
    private readonly ys: Float64Array,
  ) {
    this.places = new Int32Array(xs.length);
    this.lay(Int32Array.from(xs, (_, point) => point));
  }

  /** How many points are left. */
  get count(): number {
    return this.left;
  }

  /** Takes a point out that is in it. */
  remove(point: number): void {
    const cell = this.cellOf(this.xs[point], this.ys[point]);
    const place = this.places[point];
    const last = --this.ends[cell];
    const other = this.members[last];
    this.members[place] = other;
    this.places[other] = place;
    this.members[last] = point;
    this.places[point] = last;
    this.left--;
    if (this.left < this.laid * leftToRebuild && this.laid > fewestToRebuild) this.lay(this.remaining());
  }

  /** @returns the point nearest to a place; -1 where none is left */
  nearest(x: number, y: number): number {
    let best = -1;
    let least = Number.POSITIVE_INFINITY;
    this.search(x, y, (point, distance) => {
      if (distance < least || (distance === least && point > best)) [best, least] = [point, distance];
      return least;
    });
    return best;
  }

  /** Calls back for points around a place, the near ones first by and large. */
  search(x: number, y: number, found: Found): void {
    const { columns, rows, size, minX, minY } = this;
    const column = clamp(Math.floor((x - minX) / size), columns - 1);
    const row = clamp(Math.floor((y - minY) / size), rows - 1);
    let reach = Number.POSITIVE_INFINITY;
    for (let ring = 0; ; ring++) {
      const [left, right, top, bottom] = [column - ring, column + ring, row - ring, row + ring];
      const [from, to] = [Math.max(0, left), Math.min(columns - 1, right)];
      if (top >= 0) for (let c = from; c <= to; c++) reach = this.lookInto(top * columns + c, x, y, reach, found);
      if (bottom < rows && ring > 0)
        for (let c = from; c <= to; c++) reach = this.lookInto(bottom * columns + c, x, y, reach, found);
      for (let r = Math.max(0, top + 1); r <= Math.min(rows - 1, bottom - 1); r++) {
        if (left >= 0) reach = this.lookInto(r * columns + left, x, y, reach, found);
        if (right < columns) reach = this.lookInto(r * columns + right, x, y, reach, found);
      }
      // How near a point may be that lies beyond the cells looked at.
      let next = Number.POSITIVE_INFINITY;
      if (left > 0) next = Math.min(next, x - (minX + left * size));
      if (right < columns - 1) next = Math.min(next, minX + (right + 1) * size - x);
      if (top > 0) next = Math.min(next, y - (minY + top * size));
      if (bottom < rows - 1) next = Math.min(next, minY + (bottom + 1) * size - y);
      if (next === Number.POSITIVE_INFINITY || (next > 0 && next * next > reach)) return;
    }
  }

  /** Calls back for the points of a cell. @returns how far it still has to look, squared */
  private lookInto(cell: number, x: number, y: number, reach: number, found: Found): number {
    const { starts, ends, members, xs, ys } = this;
    let still = reach;
    for (let index = starts[cell]; index < ends[cell]; index++) {
      const point = members[index];
      const dx = xs[point] - x;
      const dy = ys[point] - y;
      still = found(point, dx * dx + dy * dy);
    }
    return still;
  }

  private remaining(): Int32Array {
    const points = new Int32Array(this.left);
    let count = 0;
    for (let cell = 0; cell < this.ends.length; cell++)
      for (let index = this.starts[cell]; index < this.ends[cell]; index++) points[count++] = this.members[index];
    return points;
  }

  private lay(points: Int32Array): void {
    let [minX, minY, maxX, maxY] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, -Infinity, -Infinity];
    for (const point of points) {
      minX = Math.min(minX, this.xs[point]);
      minY = Math.min(minY, this.ys[point]);
      maxX = Math.max(maxX, this.xs[point]);
      maxY = Math.max(maxY, this.ys[point]);
    }
    const [width, height] = [Math.max(0, maxX - minX), Math.max(0, maxY - minY)];
    const cells = Math.max(1, points.length / pointsPerCell);
    // Points on a line have no area: their cells lie in one row.
    const size = Math.max(Math.sqrt((width * height) / cells), Math.max(width, height) / cells) || 1;
    Object.assign(this, { minX, minY, size });
    this.columns = Math.floor(width / size) + 1;
    this.rows = Math.floor(height / size) + 1;
    const counts = new Int32Array(this.columns * this.rows + 1);
    for (const point of points) counts[this.cellOf(this.xs[point], this.ys[point]) + 1]++;
    for (let cell = 1; cell < counts.length; cell++) counts[cell] += counts[cell - 1];
    this.starts = counts.slice(0, -1);
    this.ends = counts.slice(0, -1);
    this.members = new Int32Array(points.length);
    for (const point of points) {
      const place = this.ends[this.cellOf(this.xs[point], this.ys[point])]++;
      this.members[place] = point;
      this.places[point] = place;
    }
    this.left = points.length;
    this.laid = points.length;
  }

  private cellOf(x: number, y: number): number {
    const column = clamp(Math.floor((x - this.minX) / this.size), this.columns - 1);
    return clamp(Math.floor((y - this.minY) / this.size), this.rows - 1) * this.columns + column;
  }
}

function clamp(value: number, most: number): number {
  return value < 0 ? 0 : Math.min(value, most);
}
