import type { Layer } from '../document/layer.ts';
import { type Box, boxOf } from '../geometry/paths/box.ts';
import type { Machine } from '../machine/machine.ts';
import { scanOffsetAt } from '../machine/scan-offset.ts';
import { usualSettings } from '../settings/settings.ts';

/*
 * A card that shows how far lines that are scanned there and back burn apart: a vernier of thin bars.
 */

/** What a scan card tries. */
export interface ScanCardWish {
  /** Along which axis of the machine its lines are scanned. */
  readonly axis: 'x' | 'y';
  /** In mm/s. */
  readonly speeds: readonly number[];
  /** In mm, rising. */
  readonly offsets: readonly number[];
  readonly powerPercent: number;
}

/** Half a bar: which way its lines are scanned, and where it is drawn, in mm from the card's top left, y down. */
export interface ScanBar {
  readonly speed: number;
  readonly offset: number;
  readonly way: 'there' | 'back';
  readonly box: Box;
}

export interface ScanCard {
  readonly bars: readonly ScanBar[];
  /** Scored words, with the middle of their baseline, or their right end. */
  readonly labels: readonly {
    readonly words: string;
    readonly x: number;
    readonly y: number;
    readonly align: 'middle' | 'right';
  }[];
  readonly width: number;
  readonly height: number;
}

/** How thick a bar is, how long each half of it is, and how far apart bars and rows of them are, in mm. */
const thick = 0.4;
const half = 4;
const pitch = 9;
const between = 5;
/** Room for the words, in mm. */
const besideMm = 12;
const belowMm = 6;
/** How far apart scan lines are, in mm: half bars have 20 of them. */
const lineSpacingMm = 0.2;

/**
 * Lays out a scan card. Of each bar one half is scanned there, the other one back, and that is drawn so much further on as
 * its number says. Burnt, the halves of the one bar meet whose number is how far lines burn apart at its speed.
 */
export function layScanCard({ axis, speeds, offsets }: ScanCardWish): ScanCard {
  const bars = speeds.flatMap((speed, row) =>
    offsets.flatMap((offset, i) => {
      const [along, across] = [pitch * i + pitch / 2 - thick / 2, row * (2 * half + between)];
      const halves: readonly (readonly [ScanBar['way'], number, number])[] = [
        ['there', along, across],
        ['back', along + offset, across + half],
      ];
      return halves.map(([way, u, v]): ScanBar => {
        const box = axis === 'x' ? boxOf(besideMm + u, v, thick, half) : boxOf(besideMm + v, u, half, thick);
        return { speed, offset, way, box };
      });
    }),
  );
  const long = offsets.length * pitch;
  const wide = speeds.length * (2 * half + between) - between;
  const [width, height] = axis === 'x' ? [long, wide] : [wide, long];
  // How they are said along the bars, and at each row of them.
  const offsetAt = (i: number) =>
    axis === 'x'
      ? { x: besideMm + (i + 0.5) * pitch, y: height + 4, align: 'middle' as const }
      : { x: besideMm - 2, y: (i + 0.5) * pitch + 1, align: 'right' as const };
  const speedAt = (row: number) => {
    const middle = row * (2 * half + between) + half;
    return axis === 'x'
      ? { x: besideMm - 2, y: middle + 1, align: 'right' as const }
      : { x: besideMm + middle, y: height + 4, align: 'middle' as const };
  };
  return {
    bars,
    labels: [
      ...offsets.map((offset, i) => ({ words: String(offset), ...offsetAt(i) })),
      ...speeds.map((speed, row) => ({ words: String(speed), ...speedAt(row) })),
    ],
    width: besideMm + width,
    height: height + belowMm,
  };
}

/** The layer that half bars of a speed burn on. @param cardId tells its layers from those of other cards */
export function scanCardLayerId(cardId: string, { speed, way }: Pick<ScanBar, 'speed' | 'way'>): string {
  return `scan ${cardId} ${speed} ${way}`;
}

/** The layers of a scan card: of each speed one whose lines all go there, and one whose lines all go back. */
export function scanCardLayers({ axis, speeds, powerPercent }: ScanCardWish, cardId: string): Layer[] {
  const level = axis === 'x' ? 0 : 90;
  return speeds.flatMap((speed) =>
    (['there', 'back'] as const).map(
      (way): Layer => ({
        id: scanCardLayerId(cardId, { speed, way }),
        name: `${speed} mm/s ${way}`,
        operation: 'engrave',
        settings: {
          ...usualSettings(),
          powerPercent,
          speedMmPerS: speed,
          lineSpacingMm,
          scanAngle: way === 'there' ? level : level + 180,
          bothWays: false,
        },
      }),
    ),
  );
}

/**
 * A machine's table of scan offsets with what a card shows: how far lines burn apart at each speed, with what was taken back
 * when the card was burnt. So it is added to that. Speeds of which nothing was read stay as they are.
 *
 * @param read by speed, in mm
 */
export function readScanCard(
  machine: Pick<Machine, 'scanOffsets'>,
  axis: 'x' | 'y',
  read: ReadonlyMap<number, number>,
): NonNullable<Machine['scanOffsets']> {
  const [ux, uy] = axis === 'x' ? [1, 0] : [0, 1];
  const found = [...read].map(([speed, mm]) => ({
    axis,
    speed,
    mm: Math.round(1e4 * (scanOffsetAt(machine, speed, ux, uy) + mm)) / 1e4,
  }));
  const others = (machine.scanOffsets ?? []).filter((known) => known.axis !== axis || !read.has(known.speed));
  return [...others, ...found].toSorted((a, b) => (a.axis === b.axis ? a.speed - b.speed : a.axis < b.axis ? -1 : 1));
}
