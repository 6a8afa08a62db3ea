import type { ReadingWarning } from '../refusal.ts';

/** Gathers what a reader has to say: one entry a code, with the first message and how often it came up. */
export class WarningList {
  private readonly byCode = new Map<string, { message: string; count: number }>();

  /** @param message a sentence without its capital and full stop */
  add(code: string, message: string, count = 1): void {
    const known = this.byCode.get(code);
    if (known) known.count += count;
    else this.byCode.set(code, { message, count });
  }

  list(): ReadingWarning[] {
    return [...this.byCode].map(([code, { message, count }]) => ({
      code,
      message: `${message[0].toUpperCase()}${message.slice(1)}${count > 1 ? ` (and ${count - 1} more like it)` : ''}.`,
      count,
    }));
  }
}
