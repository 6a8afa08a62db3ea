import type { PricePart } from '../plan/price.ts';

/** What of a shared burn is one job's. */
export interface ShareWeight {
  /** How long it would take alone, in s. */
  readonly seconds: number;
  /** What its pieces cover, in mm². */
  readonly areaMm2: number;
}

/**
 * What each job of a shared burn pays of its price: the machine by the time that each would take, stock by the area of its
 * pieces, fees in equal parts. In whole hundredths, which add up to the price: those that are left over go by the method of
 * largest remainders (Hamilton).
 */
export function sharesOf(parts: readonly PricePart[], jobs: readonly ShareWeight[]): number[] {
  const exact = jobs.map(() => 0);
  for (const { kind, amount } of parts) {
    const weights = jobs.map(({ seconds, areaMm2 }) => {
      if (kind === 'fee') return 1;
      return kind === 'machine' ? seconds : areaMm2;
    });
    const whole = weights.reduce((sum, weight) => sum + weight, 0);
    weights.forEach((weight, i) => {
      exact[i] += amount * 100 * (whole > 0 ? weight / whole : 1 / jobs.length);
    });
  }
  const total = Math.round(parts.reduce((sum, { amount }) => sum + amount * 100, 0));
  const down = exact.map((cents) => Math.floor(cents + 1e-6));
  let over = total - down.reduce((sum, cents) => sum + cents, 0);
  const byRemainder = exact.map((cents, i) => ({ i, rest: cents - down[i] })).sort((a, b) => b.rest - a.rest);
  for (const { i } of byRemainder) {
    if (over <= 0) break;
    down[i]++;
    over--;
  }
  return down.map((cents) => cents / 100);
}
