import type { LayerBurning } from '../document/layer.ts';
import { type Box, transformBox, uniteBoxes } from '../geometry/paths/box.ts';
import { applyTo, type Matrix, rotation } from '../geometry/paths/matrix.ts';
import { type Progress, partOf } from '../geometry/paths/progress.ts';
import { accelerationAlong, type Machine } from '../machine/machine.ts';
import { scanOffsetAt } from '../machine/scan-offset.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { Move, type MoveList } from './moves.ts';
import { rampsOf } from './ramps.ts';
import { blocksOf, type ScanPace, soonerAngles } from './scan-blocks.ts';
import { type Filled, levelled, type Row } from './scan-lines.ts';
import { crossingsByRow } from './scan-rows.ts';
import {
  artBounds,
  artTogether,
  burntDots,
  dotCount,
  type GreyArea,
  isPicture,
  levelledArt,
  mostDots,
  mostMoves,
  rowsOfDots,
  type ToneArt,
  type ToneSettings,
} from './tones.ts';

type RasterSettings = Pick<
  LayerSettings,
  'speedMmPerS' | 'lineSpacingMm' | 'passes' | 'focusMm' | 'focusStepMm' | 'scanAngle' | 'bothWays' | 'runUpMm'
>;

/** What of a machine scan lines go by. */
type RasterMachine = Pick<Machine, 'acceleration' | 'accelerationY' | 'jerk' | 'scanOffsets'>;

/** What scan lines are laid by: in a frame that is turned so that they are level. */
interface Scan extends ScanPace {
  readonly settings: RasterSettings;
  /** From the frame to the bed; null where they are one. */
  readonly turned: Matrix | null;
  /** How much earlier the beam comes on and goes off along a line than it is to burn, in mm. */
  readonly ahead: number;
  /** From where to where on a row the bed reaches: run-ups are cut short there. */
  readonly reach: (y: number) => readonly [number, number];
  /** How fast what does not burn within a row may be crossed, in mm/s; missing where that is always at burning speed. */
  readonly travelSpeed?: number;
}

/**
 * Fills outlines with scan lines, even-odd over all of them together: where two overlap, neither
 * burns. Lines run level or turned, both ways or one. Each has a run-up and a run-out beyond its ends, so that speed
 * is constant while lit. Pieces that lie far apart are filled one after the other where that is quicker.
 *
 * @param bed where the head may go
 * @param progress is told how much is filled, from 0 to 1
 * @returns whether a run-up had to be cut short at the edge of the bed
 */
export function rasterFill(
  list: MoveList,
  pieces: readonly Filled[],
  settings: RasterSettings & Pick<LayerBurning, 'thinParts' | 'scanTurns'>,
  machine: RasterMachine,
  bed: Box,
  progress?: Progress,
): boolean {
  const { scanAngle, scanTurns } = settings;
  const scanAt = (angle: number) => scanBy({ ...settings, scanAngle: angle }, machine, bed);
  const byAngle =
    scanTurns === 'same'
      ? [{ angle: scanAngle, pieces }]
      : soonerAngles(pieces, [scanAngle, turnedFrom(scanAngle)], scanAt);
  return byAngle
    .map(({ angle, pieces: own }, i) => {
      const part = partOf(progress, i / byAngle.length, (i + 1) / byAngle.length);
      return fillAtOneAngle(list, own, settings, scanAt(angle), part);
    })
    .includes(true);
}

/** The angle of scan lines that are turned by a quarter, in degrees. */
export function turnedFrom(scanAngle: number): number {
  return (scanAngle + 90) % 180;
}

/** Fills outlines with lines at the angle of a scan. @returns whether a run-up had to be cut short */
function fillAtOneAngle(
  list: MoveList,
  pieces: readonly Filled[],
  { lineSpacingMm, thinParts }: Pick<RasterSettings, 'lineSpacingMm'> & Pick<LayerBurning, 'thinParts'>,
  scan: Scan,
  progress?: Progress,
): boolean {
  const { turned, settings } = scan;
  let short = false;
  const blocks = blocksOf(turned ? pieces.map((piece) => levelled(piece, settings.scanAngle)) : pieces, scan);
  blocks.forEach((block, i) => {
    const { rows, missed } = crossingsByRow(block, lineSpacingMm, thinParts === 'line');
    for (const box of missed) list.missed.push(turned ? transformBox(box, turned) : box);
    short = scanRows(list, () => rows, scan) || short;
    progress?.((i + 1) / blocks.length);
  });
  return short;
}

/**
 * Burns pictures and areas by their greys, row by row; what `rasterFill` says of rows holds here too. What lies on each
 * other is one picture. What does not burn within a row is crossed at travel speed where that is quicker.
 *
 * @param arts from back to front, in bed mm
 * @returns whether a run-up had to be cut short at the edge of the bed
 */
export function rasterTones(
  list: MoveList,
  arts: readonly ToneArt[],
  settings: RasterSettings & ToneSettings,
  machine: RasterMachine & Pick<Machine, 'travelSpeed'>,
  bed: Box,
  progress?: Progress,
): boolean {
  const scan = { ...scanBy(settings, machine, bed), travelSpeed: machine.travelSpeed };
  let short = false;
  const level = scan.turned ? arts.map((art) => levelledArt(art, settings.scanAngle)) : arts;
  const inBed = new Map(level.map((art, i) => [art, arts[i]]));
  const together = artTogether(level);
  // Pictures keep dots of their own: those of several would not lie as each was made for.
  const pictures = together.filter((some) => some.some(isPicture));
  const areas = together.flatMap((some) =>
    some.some(isPicture) ? [] : some.filter((art): art is GreyArea => !isPicture(art)),
  );
  list.power = 1;
  const blocks: readonly (readonly ToneArt[])[] = [...pictures, ...blocksOf(areas, scan)];
  blocks.forEach((block, i) => {
    const count = dotCount(block, settings);
    if (count > mostDots) {
      const box = block.map((art) => artBounds(inBed.get(art) ?? art)).reduce(uniteBoxes);
      list.tooFine.push({ box, dots: count });
      return;
    }
    const dots = burntDots(block, settings);
    if (dots) {
      list.reserve(settings.passes * mostMoves(dots));
      short = scanRows(list, () => rowsOfDots(dots, settings), scan) || short;
    }
    for (const art of dots?.missed ?? []) list.missed.push(artBounds(inBed.get(art) ?? art));
    progress?.((i + 1) / blocks.length);
  });
  list.power = 1;
  return short;
}

function scanBy(settings: RasterSettings, machine: RasterMachine, bed: Box): Scan {
  const { scanAngle, runUpMm, speedMmPerS } = settings;
  const turned = scanAngle % 360 === 0 ? null : rotation(scanAngle);
  const [ux, uy] = turned ?? [1, 0];
  const acceleration = accelerationAlong(machine, ux, uy);
  const ramps = rampsOf(machine.jerk);
  return {
    settings,
    acceleration,
    ramps,
    // Half of it there, half of it back.
    ahead: scanOffsetAt(machine, speedMmPerS, ux, uy) / 2,
    runUp: runUpMm ?? ramps.runUp(speedMmPerS, acceleration),
    turned,
    reach: turned ? (y) => reachOfBed(bed, turned, y) : () => [bed.minX, bed.maxX],
  };
}

/** From where to where a row of the turned frame lies on the bed; nowhere, as a single place, where it misses it. */
function reachOfBed({ minX, minY, maxX, maxY }: Box, turned: Matrix, y: number): readonly [number, number] {
  const point = applyTo(turned, 0, y);
  const to = applyTo(turned, 1, y);
  let [from, until] = [-Infinity, Infinity];
  for (const [place, step, least, most] of [
    [point.x, to.x - point.x, minX, maxX],
    [point.y, to.y - point.y, minY, maxY],
  ]) {
    if (Math.abs(step) < 1e-12) continue;
    const ends = [(least - place) / step, (most - place) / step];
    from = Math.max(from, Math.min(...ends));
    until = Math.min(until, Math.max(...ends));
  }
  return [from, Math.max(from, until)];
}

/** Burns rows with all their passes. @returns whether a run-up had to be cut short */
function scanRows(list: MoveList, rows: () => Iterable<Row>, scan: Scan): boolean {
  const { passes, focusMm, focusStepMm } = scan.settings;
  let short = false;
  for (let pass = 0; pass < passes; pass++) {
    list.focus(focusMm - pass * focusStepMm);
    short = scanOnce(list, rows(), scan) || short;
  }
  return short;
}

/** Crossing at travel speed has to save as much as this, in seconds, to be worth a command of another kind. */
const worthwhile = 1e-3;

/** From how wide a gap on, in mm, it is crossed at travel speed, the speed at both its ends being that of burning. */
function widthToCross({ settings: { speedMmPerS: speed }, acceleration, ramps, travelSpeed = 0 }: Scan): number {
  if (travelSpeed <= speed) return Number.POSITIVE_INFINITY;
  const saves = (mm: number) => mm / speed - ramps.time(mm, speed, speed, travelSpeed, acceleration);
  let [least, most] = [0, 1];
  while (saves(most) < worthwhile) [least, most] = [most, 2 * most];
  for (let i = 0; i < 30; i++) {
    const middle = (least + most) / 2;
    if (saves(middle) < worthwhile) least = middle;
    else most = middle;
  }
  return most;
}

function scanOnce(list: MoveList, rows: Iterable<Row>, scan: Scan): boolean {
  const { settings, runUp, turned, reach, ahead } = scan;
  const wide = widthToCross(scan);
  let short = false;
  let forth = true;
  const go = (kind: number, x: number, y: number) => {
    if (!turned) return list.to(kind, x, y);
    const place = applyTo(turned, x, y);
    list.to(kind, place.x, place.y);
  };
  for (const { y, xs, powers } of rows) {
    const shift = forth ? -ahead : ahead;
    const first = xs[0] + shift;
    const last = xs[xs.length - 1] + shift;
    const [least, most] = reach(y);
    const left = Math.max(least, first - runUp);
    const right = Math.min(most, last + runUp);
    if (left > first - runUp || right < last + runUp) short = true;
    // Beyond the bed there is nothing to run to; what lies there is a finding of its own.
    const from = Math.min(left, first);
    const to = Math.max(right, last);
    go(Move.travel, forth ? from : to, y);
    for (let i = 0; i < xs.length; i += 2) {
      const index = forth ? i : xs.length - 1 - i;
      const gap = i === 0 ? 0 : Math.abs(xs[index] - xs[forth ? index - 1 : index + 1]);
      go(gap < wide ? Move.dark : Move.travel, xs[index] + shift, y);
      if (powers) list.power = powers[index >> 1];
      go(Move.lit, xs[forth ? index + 1 : index - 1] + shift, y);
    }
    go(Move.dark, forth ? to : from, y);
    if (settings.bothWays) forth = !forth;
  }
  return short;
}
