import { orders, type PlainLine } from './plain-line.ts';
import type { PlainStatus } from './plain-status.ts';

/** How often an order is given again until the machine has followed it. */
const againMs = 250;
/** A machine that does not come to rest when it is told to hold is reset all the same after so many times. */
const mostHolds = 4;
/** A machine that greets nobody stands after so many resets. */
const mostResets = 4;

/**
 * Stops a machine: holds it first, so that it keeps its place, and resets it once it stands, so that nothing is left in it.
 * It stands when it says so after the reset.
 */
export class PlainStopping {
  /** Who is to be told that it stands; null while it is not being stopped. */
  private waiting: (() => void)[] | null = null;
  private sinceMs = 0;
  private holds = 0;
  private resets = 0;
  private hasGreeted = false;

  constructor(private readonly line: PlainLine) {}

  /** Whether the machine is to be stopped, and has not said yet that it stands. */
  get isOn(): boolean {
    return this.waiting !== null;
  }

  /** Begins to stop the machine, where that was not begun yet. @param stands called once it stands */
  until(stands?: () => void): void {
    if (!this.waiting) {
      this.waiting = [];
      this.begin();
    }
    if (stands) this.waiting.push(stands);
  }

  /** The line is open again: what was said on the one before may not have come through. */
  begin(): void {
    if (!this.waiting) return;
    this.sinceMs = this.holds = this.resets = 0;
    this.hasGreeted = false;
    this.hold();
    this.line.say(orders.status);
  }

  /** Counts the time, and says again what has had no effect. */
  pass(ms: number): void {
    if (!this.waiting) return;
    this.sinceMs += ms;
    if (this.sinceMs < againMs) return;
    this.sinceMs = 0;
    if (this.resets > 0 || this.holds >= mostHolds) this.reset();
    else this.hold();
  }

  /** The machine begins anew. */
  greeted(): void {
    if (this.resets > 0) this.hasGreeted = true;
    this.line.say(orders.status);
  }

  /**
   * The machine says how it is.
   * @returns tells whoever waits that it stands; null where it does not stand yet
   */
  heard({ state, isSlowing }: PlainStatus): (() => void) | null {
    const { waiting } = this;
    if (!waiting) return null;
    if (this.resets === 0) {
      // One that is idle, and has lines on their way, is about to move: reset then, it would lose its place.
      const isAboutToMove = state === 'idle' && this.line.owed !== null;
      if (state !== 'running' && state !== 'homing' && !isSlowing && !isAboutToMove) this.reset();
      return null;
    }
    if (state === 'running' || state === 'held' || state === 'homing') return null;
    if (!this.hasGreeted && this.resets < mostResets) return null;
    this.waiting = null;
    return () => {
      for (const tell of waiting) tell();
    };
  }

  private hold(): void {
    this.holds++;
    this.line.say(orders.hold);
  }

  private reset(): void {
    this.resets++;
    this.line.say(orders.reset);
    this.line.say(orders.status);
  }
}
