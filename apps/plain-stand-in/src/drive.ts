/** A stretch of time in which the speed is v + gain · t + turn · t² / 2. */
export interface Stretch {
  readonly seconds: number;
  readonly v: number;
  readonly gain: number;
  readonly turn: number;
}

/** How many seconds stretches take together. */
export function coming(stretches: readonly Stretch[]): number {
  return stretches.reduce((sum, { seconds }) => sum + seconds, 0);
}

/** How far stretches have led after so many seconds. */
export function gone(stretches: readonly Stretch[], after: number): number {
  let left = after;
  let length = 0;
  for (const { seconds, v, gain, turn } of stretches) {
    const t = Math.min(left, seconds);
    length += t * (v + t * (gain / 2 + (t * turn) / 6));
    left -= t;
  }
  return length;
}

/** The speed after so many seconds. */
export function speedAfter(stretches: readonly Stretch[], after: number): number {
  let left = after;
  let speed = 0;
  for (const { seconds, v, gain, turn } of stretches) {
    const t = Math.min(left, seconds);
    speed = v + t * (gain + (t * turn) / 2);
    if (left <= seconds) break;
    left -= seconds;
  }
  return speed;
}

/** What drives a head: with full acceleration at once, or with one that rises and falls. */
export class Drive {
  /** @param jerk in mm/s³; 0 where acceleration is there at once */
  constructor(private readonly jerk: number) {}

  /** The stretches of a way, from one speed to another, as fast as may be in between. */
  stretches(v0: number, v1: number, limit: number, length: number, a: number): Stretch[] {
    const least = Math.max(v0, v1);
    const reach = (top: number) => this.way(v0, top, a) + this.way(v1, top, a);
    const top = this.greatest(least, Math.max(least, limit), (speed) => reach(speed) <= length);
    const even = Math.max(0, length - reach(top)) / top;
    const up = this.change(v0, top, a);
    const down = this.change(v1, top, a).reverse().map(backwards);
    return [...up, { seconds: even, v: top, gain: 0, turn: 0 }, ...down];
  }

  /** The highest speed up to a limit that can be reached from another over a length, or the other way round. */
  most(limit: number, from: number, length: number, a: number): number {
    if (limit <= from) return limit;
    return this.greatest(from, limit, (speed) => this.way(from, speed, a) <= length);
  }

  private change(slow: number, fast: number, a: number): Stretch[] {
    const { jerk } = this;
    const dv = fast - slow;
    if (jerk === 0) return [{ seconds: dv / a, v: slow, gain: a, turn: 0 }];
    const bend = dv >= (a * a) / jerk ? a / jerk : Math.sqrt(dv / jerk);
    const full = jerk * bend;
    const even = full > 0 ? dv / full - bend : 0;
    const bent = (full * bend) / 2;
    return [
      { seconds: bend, v: slow, gain: 0, turn: jerk },
      { seconds: even, v: slow + bent, gain: full, turn: 0 },
      { seconds: bend, v: fast - bent, gain: full, turn: -jerk },
    ];
  }

  /** The length of a change of speed. */
  private way(slow: number, fast: number, a: number): number {
    const dv = fast - slow;
    const { jerk } = this;
    if (jerk === 0) return (dv * (slow + fast)) / (2 * a);
    const seconds = dv >= (a * a) / jerk ? dv / a + a / jerk : 2 * Math.sqrt(dv / jerk);
    return ((slow + fast) * seconds) / 2;
  }

  /** The greatest speed of a range that fits: by halving. */
  private greatest(from: number, to: number, fits: (speed: number) => boolean): number {
    if (fits(to)) return to;
    let [low, high] = [from, to];
    while (high - low > 1e-10 * to) {
      const middle = (low + high) / 2;
      if (fits(middle)) low = middle;
      else high = middle;
    }
    return low;
  }
}

function backwards({ seconds, v, gain, turn }: Stretch): Stretch {
  return { seconds, v: v + seconds * (gain + (seconds * turn) / 2), gain: -(gain + turn * seconds), turn };
}
