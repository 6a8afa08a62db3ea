import { type Path, PathBuilder } from '../geometry/paths/path.ts';

/** Modules of a code, row by row: whether each burns. */
export interface ModuleGrid {
  readonly columns: number;
  readonly rows: number;
  readonly isBurnt: (column: number, row: number) => boolean;
}

/** The four ways along the edges of modules: right, down, left, up; y points down. */
const ways = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

/**
 * The outlines of the modules that burn, those that share an edge as one: outer ones clockwise on the screen, holes the other
 * way round. Modules that meet at a corner alone have outlines of their own.
 *
 * @param width how wide one module is, in mm
 * @param height how high one is
 */
export function moduleOutline({ columns, rows, isBurnt }: ModuleGrid, width: number, height: number): Path {
  const burns = (column: number, row: number) =>
    column >= 0 && row >= 0 && column < columns && row < rows && isBurnt(column, row);
  const corners = columns + 1;
  /** By corner and way: whether an edge with a burnt module on its right begins there, and was not walked yet. */
  const edges = new Uint8Array(corners * (rows + 1) * 4);
  const edgeAt = (x: number, y: number, way: number) => (y * corners + x) * 4 + way;
  for (let y = 0; y <= rows; y++) {
    for (let x = 0; x <= columns; x++) {
      const [before, here] = [burns(x - 1, y - 1), burns(x, y)];
      const [above, left] = [burns(x, y - 1), burns(x - 1, y)];
      if (here && !above) edges[edgeAt(x, y, 0)] = 1;
      if (left && !here) edges[edgeAt(x, y, 1)] = 1;
      if (before && !left) edges[edgeAt(x, y, 2)] = 1;
      if (above && !before) edges[edgeAt(x, y, 3)] = 1;
    }
  }
  const builder = new PathBuilder();
  for (let y = 0; y <= rows; y++) {
    for (let x = 0; x <= columns; x++) {
      if (edges[edgeAt(x, y, 0)] === 1) walk(x, y);
    }
  }
  return builder.build();

  /** Goes once around from the start of an edge to the right, turning right where it can. */
  function walk(startX: number, startY: number): void {
    let [x, y] = [startX, startY];
    let way: number | undefined = 0;
    builder.moveTo(x * width, y * height);
    while (way !== undefined) {
      const before: number = way;
      edges[edgeAt(x, y, before)] = 0;
      x += ways[before][0];
      y += ways[before][1];
      way = [1, 0, 3].map((turn) => (before + turn) % 4).find((turned) => edges[edgeAt(x, y, turned)] === 1);
      if (way !== undefined && way !== before) builder.lineTo(x * width, y * height);
    }
    builder.close();
  }
}
