import { codes, type StandInLine } from './stand-in-line.ts';

/** How often a stop is said again until the machine stands. */
const stopAgainMs = 250;

/** Says stop, again and again, until the machine says that it stands. */
export class Stopping {
  /** Who is to be told that it stands; null while it is not being stopped. */
  private waiting: (() => void)[] | null = null;
  private sinceSaidMs = 0;

  constructor(private readonly line: StandInLine) {}

  /** Whether the machine is to be stopped, and has not said yet that it stands. */
  get isOn(): boolean {
    return this.waiting !== null;
  }

  /** Begins to stop the machine, where that was not begun yet. @param stands called once it stands */
  until(stands?: () => void): void {
    if (!this.waiting) {
      this.waiting = [];
      this.sinceSaidMs = 0;
      this.line.say(codes.stop);
      this.line.say(codes.enquire);
    }
    if (stands) this.waiting.push(stands);
  }

  /** Counts the time since it was last said. */
  pass(ms: number): void {
    this.sinceSaidMs += ms;
    if (this.sinceSaidMs >= stopAgainMs) this.sayAgain();
  }

  sayAgain(): void {
    if (!this.isOn) return;
    this.sinceSaidMs = 0;
    this.line.say(codes.stop);
  }

  /** The machine stands. @returns tells whoever waits for it */
  stood(): () => void {
    const told = this.waiting ?? [];
    this.waiting = null;
    return () => {
      for (const tell of told) tell();
    };
  }
}
