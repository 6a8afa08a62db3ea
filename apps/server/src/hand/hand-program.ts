import { randomUUID } from 'node:crypto';
import type { Point } from '@lambent/core/geometry';
import type { Program, ProgramLine } from '@lambent/machines';

/** By this the id of what a machine does by hand is told from that of a run. */
const prefix = 'errand-';

/** Whether an id is that of something done by hand. */
export function isErrand(runId: string): boolean {
  return runId.startsWith(prefix);
}

/** A program that moves the head and cannot light the beam. */
export function unlitProgram(lines: readonly ProgramLine[]): Program {
  return {
    runId: `${prefix}${randomUUID()}`,
    lines: lines.length,
    isUnlit: true,
    async *open() {
      yield* lines;
    },
  };
}

const still = (text: string): ProgramLine => ({ text, seconds: 0 });
const beginning = ['G21', 'G90', 'M5'].map(still);

/**
 * The way of a head along lines, unlit.
 *
 * @param ways in mm in the machine's own frame; the head travels to the first point of each, and goes on from there
 * @param speed in mm/s
 */
export function walkLines(ways: readonly (readonly Point[])[], speed: number): ProgramLine[] {
  const lines = ways.flatMap((way) =>
    way.map(({ x, y }, i): ProgramLine => {
      if (i === 0) return still(`G0 ${placeIn(x, y)}`);
      const seconds = Math.hypot(x - way[i - 1].x, y - way[i - 1].y) / speed;
      return { text: `G1 ${placeIn(x, y)} F${mm(speed * 60)}`, seconds };
    }),
  );
  return [...beginning, ...lines];
}

/** Straight to a place, unlit, as fast as heads travel. */
export function lineTo({ x, y }: Point): ProgramLine[] {
  return [...beginning, still(`G0 ${placeIn(x, y)}`)];
}

/** The focus up or down, to so many mm above the stock. */
export function focusLines(z: number): ProgramLine[] {
  return [...beginning, still(`G0 Z${mm(z)}`)];
}

/** What blows at the beam, which stays off. */
export function airLines(air: 'off' | 'low' | 'high'): ProgramLine[] {
  return [still('M5'), still({ off: 'M9', low: 'M7', high: 'M8' }[air])];
}

function placeIn(x: number, y: number): string {
  return `X${mm(x)} Y${mm(y)}`;
}

function mm(value: number): number {
  return Number(value.toFixed(3)) || 0;
}
