/** So many wrong passwords for a name are let pass. */
const free = 5;
/** The wait after the next one, in ms, which doubles with each; and the longest. */
const [firstWaitMs, longestWaitMs] = [1000, 15 * 60_000];
/** So long after the last wrong password a name is as any other, in ms. */
const forgottenMs = 24 * 3_600_000;
/** Of so many names it is known how often they were tried. */
const mostNames = 10_000;

/**
 * Makes whoever tries passwords wait longer and longer, name by name. Names that nobody has are counted alike: how long one
 * waits does not tell whether there is somebody of that name.
 */
export class SignInGate {
  private readonly wrong = new Map<string, { readonly count: number; readonly at: number }>();

  /** @returns how long until a password may be tried for a name, in ms; 0 where it may be now */
  waitFor(nameKey: string, now: number): number {
    const known = this.wrong.get(nameKey);
    if (!known || known.count <= free) return 0;
    const wait = Math.min(longestWaitMs, firstWaitMs * 2 ** (known.count - free - 1));
    return Math.max(0, known.at + wait - now);
  }

  /** A password was wrong. */
  isWrong(nameKey: string, now: number): void {
    const known = this.wrong.get(nameKey);
    const count = known && now - known.at < forgottenMs ? known.count + 1 : 1;
    // The one that was tried last stands last: the first one is forgotten first.
    this.wrong.delete(nameKey);
    this.wrong.set(nameKey, { count, at: now });
    if (this.wrong.size > mostNames) for (const [name] of this.wrong) return void this.wrong.delete(name);
  }

  /** A password was right. */
  isRight(nameKey: string): void {
    this.wrong.delete(nameKey);
  }
}
