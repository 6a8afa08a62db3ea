import type { Box } from '../geometry/paths/box.ts';
import type { Rings } from './edges.ts';

/** Squares along the longer side of a room. */
const squaresAcross = 200;

/**
 * Which squares of a room lie wholly in something: a point in one of them is taken. It answers for most places that are
 * taken, at once; what lies in none of them has to be asked exactly.
 */
export class Covered {
  private readonly side: number;
  private readonly columns: number;
  private readonly rows: number;
  private readonly squares: Uint8Array;
  private readonly edges: Uint8Array;

  constructor(private readonly box: Box) {
    const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
    this.side = Math.max(width, height, 1e-6) / squaresAcross;
    this.columns = Math.max(1, Math.ceil(width / this.side));
    this.rows = Math.max(1, Math.ceil(height / this.side));
    this.squares = new Uint8Array(this.columns * this.rows);
    this.edges = new Uint8Array(this.columns * this.rows);
  }

  has(x: number, y: number): boolean {
    const column = Math.floor((x - this.box.minX) / this.side);
    const row = Math.floor((y - this.box.minY) / this.side);
    if (column < 0 || row < 0 || column >= this.columns || row >= this.rows) return false;
    return this.squares[row * this.columns + column] === 1;
  }

  /** Covers what lies in rings, even-odd, moved by `x` and `y`: all squares whose middle does and that no edge goes through. */
  cover(rings: Rings, x: number, y: number): void {
    const touched: number[] = [];
    const [left, top] = [x - this.box.minX, y - this.box.minY];
    for (const ring of rings) this.markEdges(ring, left, top, touched);
    const crossings: number[] = [];
    const [first, last] = this.rowsOf(rings, top);
    for (let row = first; row <= last; row++) {
      const middle = (row + 0.5) * this.side;
      crossings.length = 0;
      for (const ring of rings) {
        for (let i = 0; i < ring.length; i += 2) {
          const next = (i + 2) % ring.length;
          const [y0, y1] = [ring[i + 1] + top, ring[next + 1] + top];
          if (y0 <= middle === y1 <= middle) continue;
          crossings.push(ring[i] + left + ((middle - y0) / (y1 - y0)) * (ring[next] - ring[i]));
        }
      }
      crossings.sort((a, b) => a - b);
      for (let i = 0; i + 1 < crossings.length; i += 2) {
        const from = Math.max(0, Math.ceil(crossings[i] / this.side - 0.5));
        const to = Math.min(this.columns - 1, Math.floor(crossings[i + 1] / this.side - 0.5));
        for (let column = from; column <= to; column++) {
          const square = row * this.columns + column;
          if (!this.edges[square]) this.squares[square] = 1;
        }
      }
    }
    for (const square of touched) this.edges[square] = 0;
  }

  private rowsOf(rings: Rings, top: number): [number, number] {
    let [least, most] = [Infinity, -Infinity];
    for (const ring of rings) {
      for (let i = 1; i < ring.length; i += 2) {
        least = Math.min(least, ring[i]);
        most = Math.max(most, ring[i]);
      }
    }
    const first = Math.max(0, Math.floor((least + top) / this.side));
    return [first, Math.min(this.rows - 1, Math.floor((most + top) / this.side))];
  }

  /** Marks every square that an edge may go through. */
  private markEdges(ring: Float64Array, left: number, top: number, touched: number[]): void {
    for (let i = 0; i < ring.length; i += 2) {
      const next = (i + 2) % ring.length;
      const [x0, y0] = [(ring[i] + left) / this.side, (ring[i + 1] + top) / this.side];
      const [dx, dy] = [(ring[next] + left) / this.side - x0, (ring[next + 1] + top) / this.side - y0];
      const steps = Math.max(1, Math.ceil(Math.max(Math.abs(dx), Math.abs(dy)) * 2));
      for (let k = 0; k <= steps; k++) {
        const [column, row] = [Math.floor(x0 + (dx * k) / steps), Math.floor(y0 + (dy * k) / steps)];
        for (let r = Math.max(0, row - 1); r <= Math.min(this.rows - 1, row + 1); r++) {
          for (let c = Math.max(0, column - 1); c <= Math.min(this.columns - 1, column + 1); c++) {
            const square = r * this.columns + c;
            if (this.edges[square]) continue;
            this.edges[square] = 1;
            touched.push(square);
          }
        }
      }
    }
  }
}
