import { MachineRefusal, refusedLate } from './driver.ts';

interface Waiting {
  readonly resolve: (answer: string) => void;
  readonly reject: (error: MachineRefusal) => void;
  leftMs: number;
}

/** Words that wait for their answers, each under a number of its own, and none for ever. */
export class WordAnswers {
  private readonly waiting = new Map<number, Waiting>();
  private next = 1;

  /**
   * @param say sends the word, which bears the number
   * @param withinMs in waking time (see `Liveness`)
   * @throws MachineRefusal when no answer comes within that time, or the line breaks
   */
  ask(say: (number: number) => void, withinMs: number): Promise<string> {
    const number = this.next++;
    return new Promise((resolve, reject) => {
      this.waiting.set(number, { resolve, reject, leftMs: withinMs });
      say(number);
    });
  }

  /** @returns false where nothing waits under that number */
  answer(number: number, answer: string): boolean {
    const waiting = this.waiting.get(number);
    this.waiting.delete(number);
    waiting?.resolve(answer);
    return waiting !== undefined;
  }

  /** Lets waking time pass. */
  pass(ms: number): void {
    for (const [number, waiting] of this.waiting) {
      waiting.leftMs -= ms;
      if (waiting.leftMs > 0) continue;
      this.waiting.delete(number);
      waiting.reject(refusedLate());
    }
  }

  /** The line broke: no answer will come. */
  breakOff(): void {
    for (const { reject } of this.waiting.values())
      reject(new MachineRefusal('machine-away', 'The machine went away before it answered.'));
    this.waiting.clear();
  }
}
