/**
 * Passes news on, but not more often than every so many ms; of what comes in between, the last. What is urgent passes at
 * once.
 */
export class Pace<T> {
  private saidAt = Number.NEGATIVE_INFINITY;
  private held: { readonly news: T } | null = null;
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly everyMs: number,
    private readonly say: (news: T) => void,
  ) {}

  take(news: T, urgent: boolean): void {
    const wait = this.saidAt + this.everyMs - performance.now();
    if (urgent || wait <= 0) {
      this.pass(news);
      return;
    }
    this.held = { news };
    this.timer ??= setTimeout(() => {
      this.timer = null;
      if (this.held) this.pass(this.held.news);
    }, wait);
  }

  private pass(news: T): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.held = null;
    this.saidAt = performance.now();
    this.say(news);
  }
}
