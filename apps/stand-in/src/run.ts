import type { RunStatus } from './machine-status.ts';

/** A run that was begun: so many lines are to come, and none may light the beam of one that is unlit. */
export interface Run {
  readonly id: string;
  readonly lines: number;
  readonly isUnlit: boolean;
  /** It was stopped, or ended by an alarm. */
  dropped: boolean;
}

/**
 * Reads `run begin`, or `run begin ID LINES`, which `unlit` may follow.
 * @returns null where it is no such word; `id` is empty where none is said
 */
export function runIn(line: string): Run | null {
  const words = /^run begin(?:\s+(\S{1,64})\s+(\d{1,9})(\s+unlit)?)?$/i.exec(line.trim());
  if (!words) return null;
  const [, id = '', lines = '0', unlit] = words;
  return { id, lines: Number(lines), isUnlit: unlit !== undefined, dropped: false };
}

/** How far a run has come. @param done of the lines taken, the last one whose move is done */
export function runStatus(run: Run | null, taken: number, done: number): RunStatus | null {
  return run && { id: run.id, taken, done, dropped: run.dropped };
}
