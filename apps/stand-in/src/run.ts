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
