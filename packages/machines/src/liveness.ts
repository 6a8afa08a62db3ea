/**
 * Measures how long nothing was heard, by the time that this process was awake: while it was stopped, or too busy to
 * read, it could not have heard anything, and that is no silence of the other side.
 */
export class Liveness {
  private silent = 0;
  private last: number | null = null;

  /** @param longestTickMs no tick counts for more than this */
  constructor(private readonly longestTickMs: number) {}

  /** Something was heard. */
  heard(): void {
    this.silent = 0;
  }

  /**
   * To be called again and again, with what was to be read having been read in between.
   * @param now in ms, on a clock that never goes back
   * @returns how many ms of waking time have passed since the last tick
   */
  tick(now: number): number {
    const passed = this.last === null ? 0 : Math.min(Math.max(0, now - this.last), this.longestTickMs);
    this.last = now;
    this.silent += passed;
    return passed;
  }

  /** For how many ms of waking time nothing was heard. */
  get silentMs(): number {
    return this.silent;
  }
}
