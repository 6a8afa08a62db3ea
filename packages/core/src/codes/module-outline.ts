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

/** To the right, straight on, to the left. */
const turns = [1, 0, 3] as const;

/**
 * The outlines of the modules that burn, those that share an edge as one: outer ones clockwise on the screen, holes the other
 * way round. Modules that meet at a corner alone have outlines of their own.
 *
 * @param width how wide one module is, in mm
 * @param height how high one is
 */
export function moduleOutline({ columns, rows, isBurnt }: ModuleGrid, width: number, height: number): Path {
  // With a row and a column around them that do not burn, so that none has to be asked for beyond the edge.
  const across = columns + 2;
  const cells = new Uint8Array(across * (rows + 2));
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      if (isBurnt(column, row)) cells[(row + 1) * across + column + 1] = 1;
    }
  }
  const corners = columns + 1;
  /** By corner and way: whether an edge with a burnt module on its right begins there, and was not walked yet. */
  const edges = new Uint8Array(corners * (rows + 1) * 4);
  const edgeAt = (x: number, y: number, way: number) => (y * corners + x) * 4 + way;
  for (let y = 0; y <= rows; y++) {
    for (let x = 0; x <= columns; x++) {
      const behind = y * across + x;
      const [before, above, left, here] = [
        cells[behind],
        cells[behind + 1],
        cells[behind + across],
        cells[behind + across + 1],
      ];
      if (here > above) edges[edgeAt(x, y, 0)] = 1;
      if (left > here) edges[edgeAt(x, y, 1)] = 1;
      if (before > left) edges[edgeAt(x, y, 2)] = 1;
      if (above > before) edges[edgeAt(x, y, 3)] = 1;
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
      way = turns.find((turn) => edges[edgeAt(x, y, (before + turn) % 4)] === 1);
      if (way !== undefined) way = (before + way) % 4;
      if (way !== undefined && way !== before) builder.lineTo(x * width, y * height);
    }
    builder.close();
  }
}
