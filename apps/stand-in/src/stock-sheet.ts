/** A piece of stock in the machine's own frame, in mm, as it is told by the word `sheets`. */
export interface StockSheet {
  /** Closed lines, each the x and y of its points one after another: it is what lies in an odd number of them. */
  readonly rings: readonly (readonly number[])[];
  /** What kind of stuff it is, such as `Plywood`. */
  readonly kind: string;
  readonly thickness: number;
}

/** How wide the beam is, and each point of the picture, in mm. */
export const beamMm = 0.2;
/** Lines on round places do not lie between two points. */
const offRound = 0.037;

/** A sheet on the bed, with where its lines are at each row of points. */
export class LaidSheet {
  private readonly rows = new Map<number, readonly number[]>();

  constructor(readonly sheet: StockSheet) {}

  /** Whether the middle of a point lies in it. */
  holds(i: number, j: number): boolean {
    let crossings = this.rows.get(j);
    if (!crossings) {
      crossings = this.sheet.rings.flatMap((ring) => crossingsAt(ring, middleOf(j)));
      this.rows.set(j, crossings);
    }
    const x = middleOf(i);
    let isIn = false;
    for (const crossing of crossings) if (crossing > x) isIn = !isIn;
    return isIn;
  }
}

function middleOf(point: number): number {
  return edgeOf(point) + beamMm / 2;
}

/** Where the lines of a ring are at a height. */
function crossingsAt(ring: readonly number[], y: number): number[] {
  const found: number[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const next = (i + 2) % ring.length;
    const [x0, y0, x1, y1] = [ring[i], ring[i + 1], ring[next], ring[next + 1]];
    if (y0 < y !== y1 < y) found.push(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0));
  }
  return found;
}

/** The point of the picture in which a place lies, along either axis. */
export function pointAt(mm: number): number {
  return Math.floor((mm + offRound) / beamMm);
}

/** Where a point of the picture begins, in mm. */
export function edgeOf(point: number): number {
  return point * beamMm - offRound;
}

/** Says what in the word `sheets` is none. */
export class NotSheets extends Error {}

/**
 * Takes sheets from the JSON of the word `sheets`.
 * @throws NotSheets
 */
export function sheetsFromJson(text: string): StockSheet[] {
  let list: unknown;
  try {
    list = JSON.parse(text);
  } catch {
    throw new NotSheets('the sheets are no JSON');
  }
  if (!Array.isArray(list)) throw new NotSheets('the sheets are no list');
  return list.map((entry, i) => {
    const { rings, kind, thickness } = (entry ?? {}) as Record<string, unknown>;
    const isRing = (ring: unknown) =>
      Array.isArray(ring) && ring.length >= 6 && ring.length % 2 === 0 && ring.every(Number.isFinite);
    if (!Array.isArray(rings) || rings.length === 0 || !rings.every(isRing)) {
      throw new NotSheets(`sheet ${i + 1} has no rings of three points or more, x and y of each`);
    }
    if (typeof kind !== 'string' || typeof thickness !== 'number' || !(thickness > 0)) {
      throw new NotSheets(`sheet ${i + 1} has no kind or no thickness`);
    }
    return { rings, kind, thickness };
  });
}
