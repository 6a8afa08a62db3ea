import { gzipSync } from 'node:zlib';
import type { LitStretch } from './blocks.ts';
import type { Build } from './machine-status.ts';
import { beamMm, edgeOf, LaidSheet, NotSheets, pointAt, type StockSheet, sheetsFromJson } from './stock-sheet.ts';

/*
 * The stuff on the bed of a stand-in, and what the beam does to it. A simple model, stated in docs/stand-in.md: energy
 * per length against thickness decides what is cut through, energy per area how dark it is.
 */

/** What a kind of stuff takes: J/mm to go through 1 mm of it, and the J/mm² that darken it by 63 %. */
interface Stuff {
  readonly toughness: number;
  readonly darkens: number;
}

const stuffs: Readonly<Record<string, Stuff>> = {
  plywood: { toughness: 0.47, darkens: 0.25 },
  'cast acrylic': { toughness: 0.55, darkens: 0.23 },
  'card and board': { toughness: 0.28, darkens: 0.16 },
  leather: { toughness: 0.4, darkens: 0.18 },
  cork: { toughness: 0.25, darkens: 0.13 },
  'engraving laminate': { toughness: 0.45, darkens: 0.17 },
  stone: { toughness: Number.POSITIVE_INFINITY, darkens: 0.52 },
};
/** What a kind that is not listed takes. */
const otherStuff: Stuff = { toughness: 0.5, darkens: 0.24 };

/** To go through takes energy by this power of the thickness. */
const byThickness = 1.1;
/** What goes through with more than this many times the energy it takes is scorched. */
const scorchedFrom = 2.5;
/** A focus so many mm from the floor of the cut has half the effect. */
const halfEffectMm = 6;

const tileSize = 64;

/** How a point of the picture looks: 0 bare, up to 200 darker and darker, then cut through, and scorched besides. */
export const Code = { bare: 0, darkest: 200, through: 254, scorched: 255 } as const;

/** A picture of the bed from above. Row by row, from the point (`x`, `y`) in mm in the machine's frame, upwards in both. */
export interface BedPicture {
  readonly x: number;
  readonly y: number;
  readonly pitch: number;
  readonly width: number;
  readonly height: number;
  /** A byte for each point (see `Code`), gzipped, in base64. */
  readonly codes: string;
}

/** How much a stretch burns into each mm, in J. A beam that stands burns what it would along its own width. */
export function energyPerMm(
  { watts, takenIn, powerScale }: Pick<Build, 'watts' | 'takenIn' | 'powerScale'>,
  { fromX, fromY, toX, toY, power, steady, speed, seconds }: LitStretch,
): number {
  const beam = (watts * takenIn * power) / powerScale;
  return steady ? (beam * seconds) / Math.max(Math.hypot(toX - fromX, toY - fromY), beamMm) : beam / speed;
}

/** Keeps what burnt where: for each point, the energy that took effect for each mm of line, in J/mm. */
export class Stock {
  private sheets: readonly LaidSheet[] = [];
  private readonly tiles = new Map<number, Float32Array>();

  /** Lays what a word says. @returns `ok`, or `error:` and why */
  take(json: string): string {
    try {
      this.lay(sheetsFromJson(json));
      return 'ok';
    } catch (error) {
      if (error instanceof NotSheets) return `error:${error.message}`;
      throw error;
    }
  }

  /** Fresh sheets: what was on the bed is gone. */
  lay(sheets: readonly StockSheet[]): void {
    this.sheets = sheets.map((sheet) => new LaidSheet(sheet));
    this.tiles.clear();
  }

  /**
   * Burns along a straight line.
   * @param perMm the energy of the beam, in J/mm
   * @param z how far above the stock its focus is, in mm
   */
  burn(fromX: number, fromY: number, toX: number, toY: number, perMm: number, z: number): void {
    if (this.sheets.length === 0 || !(perMm > 0)) return;
    const [dx, dy] = [toX - fromX, toY - fromY];
    const level = Math.abs(dx) >= Math.abs(dy);
    // Along its longer way, each column of points gets the part of the line that lies in it, in one of its points.
    const [from, to] = level ? [fromX, toX] : [fromY, toY];
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    if (high === low) {
      this.heat(pointAt(fromX), pointAt(fromY), perMm, z);
      return;
    }
    const slope = level ? dy / dx : dx / dy;
    const beside = level ? fromY : fromX;
    for (let i = pointAt(low); i <= pointAt(high); i++) {
      const start = edgeOf(i);
      const share = (Math.min(high, start + beamMm) - Math.max(low, start)) / beamMm;
      if (share <= 0) continue;
      const j = pointAt(beside + slope * (start + beamMm / 2 - from));
      if (level) this.heat(i, j, perMm * share, z);
      else this.heat(j, i, perMm * share, z);
    }
  }

  private heat(i: number, j: number, perMm: number, z: number): void {
    const sheet = this.sheetAt(i, j);
    if (!sheet) return;
    const tile = this.tileOf(i, j);
    const index = indexIn(i, j);
    tile[index] = heated(sheet, tile[index], perMm, z);
  }

  private tileOf(i: number, j: number): Float32Array {
    const key = keyOf(Math.floor(i / tileSize), Math.floor(j / tileSize));
    let tile = this.tiles.get(key);
    if (!tile) {
      tile = new Float32Array(tileSize * tileSize);
      this.tiles.set(key, tile);
    }
    return tile;
  }

  /** The sheet that lies on top at a point. */
  private sheetAt(i: number, j: number): StockSheet | null {
    return this.sheets.findLast((laid) => laid.holds(i, j))?.sheet ?? null;
  }

  /** What is to be seen; null where nothing is burnt. */
  look(): BedPicture | null {
    const bounds = this.burntBounds();
    if (!bounds) return null;
    const { left, low, width, height } = bounds;
    const codes = new Uint8Array(width * height);
    this.eachBurnt((i, j, energy) => {
      codes[(j - low) * width + (i - left)] = this.codeAt(i, j, energy);
    });
    return {
      x: edgeOf(left),
      y: edgeOf(low),
      pitch: beamMm,
      width,
      height,
      codes: gzipSync(codes).toString('base64'),
    };
  }

  private eachBurnt(visit: (i: number, j: number, energy: number) => void): void {
    for (const [key, tile] of this.tiles) {
      const [tileI, tileJ] = placeOf(key);
      tile.forEach((energy, index) => {
        if (energy === 0) return;
        visit(tileI * tileSize + (index % tileSize), tileJ * tileSize + Math.floor(index / tileSize), energy);
      });
    }
  }

  private codeAt(i: number, j: number, energy: number): number {
    const sheet = this.sheetAt(i, j);
    return sheet ? codeOf(sheet, energy) : Code.bare;
  }

  private burntBounds(): { left: number; low: number; width: number; height: number } | null {
    let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
    this.eachBurnt((i, j) => {
      [left, right] = [Math.min(left, i), Math.max(right, i)];
      [low, high] = [Math.min(low, j), Math.max(high, j)];
    });
    return left > right ? null : { left, low, width: right - left + 1, height: high - low + 1 };
  }
}

/** What took effect at a point, in J/mm, after `perMm` more of a beam with its focus at `z`. */
function heated(sheet: StockSheet, before: number, perMm: number, z: number): number {
  const { toughness } = stuffOf(sheet);
  const effect = (energy: number) => {
    const floor = Math.min(sheet.thickness, (energy / toughness) ** (1 / byThickness));
    return 1 / (1 + ((z + floor) / halfEffectMm) ** 2);
  };
  // The floor goes down as it burns: in small steps, each by its middle.
  const steps = Math.ceil(Math.min(64, 1 + (32 * perMm) / neededFor(sheet)));
  let energy = before;
  for (let i = 0; i < steps; i++) {
    const half = energy + (effect(energy) * perMm) / steps / 2;
    energy += (effect(half) * perMm) / steps;
  }
  return energy;
}

/** What has to take effect to go through, in J/mm. */
function neededFor({ kind, thickness }: StockSheet): number {
  return stuffOf({ kind }).toughness * thickness ** byThickness;
}

/** How a point looks where so much took effect for each mm of line. */
function codeOf(sheet: StockSheet, energy: number): number {
  const needed = neededFor(sheet);
  const stuff = stuffOf(sheet);
  if (energy >= needed) return energy > scorchedFrom * needed ? Code.scorched : Code.through;
  return Math.max(1, Math.round(Code.darkest * (1 - Math.exp(-energy / beamMm / stuff.darkens))));
}

function stuffOf({ kind }: Pick<StockSheet, 'kind'>): Stuff {
  return stuffs[kind.toLowerCase()] ?? otherStuff;
}

const farthestTile = 4096;

function keyOf(tileI: number, tileJ: number): number {
  return (tileI + farthestTile) * 2 * farthestTile + tileJ + farthestTile;
}

function placeOf(key: number): [number, number] {
  return [Math.floor(key / (2 * farthestTile)) - farthestTile, (key % (2 * farthestTile)) - farthestTile];
}

function indexIn(i: number, j: number): number {
  const within = (point: number) => point - Math.floor(point / tileSize) * tileSize;
  return within(j) * tileSize + within(i);
}
