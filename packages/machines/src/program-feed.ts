import type { Piece } from './program-pieces.ts';

/**
 * Gives the pieces of a program to be sent, and no more at a time than what burns within a window of time: should the
 * sender vanish, the machine has no more than that. (Flow control by a sliding window, in seconds of burning.)
 */
export class ProgramFeed {
  private readonly pieces: AsyncIterator<Piece>;
  /** Seconds of the pieces sent and not known to be done, the oldest first. */
  private readonly sent: number[] = [];
  private doneCount: number;
  private waitingS = 0;
  private skip: number;
  /** Whether the last piece was given. */
  exhausted = false;

  /**
   * @param pieces of a program, from the first on
   * @param windowS so many seconds of burning may wait in the machine; one piece more may be begun
   * @param taken how many pieces the machine has taken already: these are left out
   * @param done of how many of those the moves are done
   */
  constructor(
    pieces: AsyncIterable<Piece>,
    private readonly windowS: number,
    private readonly taken = 0,
    done = 0,
  ) {
    this.pieces = pieces[Symbol.asyncIterator]();
    this.skip = taken;
    this.doneCount = done;
  }

  /** How many pieces were given, those that were left out among them. */
  get given(): number {
    return this.doneCount + this.sent.length;
  }

  /** Whether there are more pieces, and what waits in the machine leaves room for one. */
  get wants(): boolean {
    return !this.exhausted && this.waitingS < this.windowS;
  }

  /** @returns the next piece; null after the last one */
  async next(): Promise<Piece | null> {
    for (;;) {
      const { value, done } = await this.pieces.next();
      if (done) {
        this.exhausted = true;
        return null;
      }
      if (this.skip > 0) {
        // Of those that the machine has, it may still be on the way through some.
        const place = this.taken - this.skip;
        this.skip--;
        if (place >= this.doneCount) this.push(value.seconds);
        continue;
      }
      this.push(value.seconds);
      return value;
    }
  }

  /** The machine says of how many pieces the moves are done. */
  done(count: number): void {
    while (this.doneCount < count && this.sent.length > 0) {
      this.waitingS -= this.sent.shift() as number;
      this.doneCount++;
    }
    if (this.sent.length === 0) this.waitingS = 0;
  }

  /** Ends reading the program. */
  close(): void {
    this.exhausted = true;
    this.pieces.return?.().catch(() => {});
  }

  private push(seconds: number): void {
    this.sent.push(seconds);
    this.waitingS += seconds;
  }
}
