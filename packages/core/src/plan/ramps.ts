/** How a head changes its speed: in mm, mm/s and mm/s². */
export interface Ramps {
  /** The square of the highest speed that is reached over a length, or braked from over it. @param square where it begins */
  reach(square: number, length: number, acceleration: number): number;
  /** The time in seconds over `length`, from speed `v0` to `v1`, never above `top`. */
  time(length: number, v0: number, v1: number, top: number, acceleration: number): number;
  /** The length in which a head comes to a speed from rest. */
  runUp(speed: number, acceleration: number): number;
}

/** The time in seconds over `length`, from speed `v0` to `v1`, never above `top`, at one acceleration. */
export function trapezoidTime(length: number, v0: number, v1: number, top: number, acceleration: number): number {
  if (v0 === top && v1 === top) return length / top;
  const up = (top * top - v0 * v0) / (2 * acceleration);
  const down = (top * top - v1 * v1) / (2 * acceleration);
  if (up + down <= length) {
    return (top - v0) / acceleration + (top - v1) / acceleration + (length - up - down) / top;
  }
  const peak = Math.sqrt(acceleration * length + (v0 * v0 + v1 * v1) / 2);
  return Math.max(0, (2 * peak - v0 - v1) / acceleration);
}

/** Full acceleration at once: trapezoids of speed over time. */
const evenRamps: Ramps = {
  reach: (square, length, acceleration) => square + 2 * acceleration * length,
  time: trapezoidTime,
  runUp: (speed, acceleration) => (speed * speed) / (2 * acceleration),
};

/** Halving and Newton's steps end at this share of a speed. */
const sameSpeed = 1e-10;

/**
 * Acceleration that rises and falls by so many mm/s³, and is none where a move begins and where it ends. (The double S
 * of speed over time: L. Biagiotti, C. Melchiorri, Trajectory Planning for Automatic Machines and Robots, 2008, 3.4.)
 */
class SmoothRamps implements Ramps {
  constructor(private readonly jerk: number) {}

  reach(square: number, length: number, acceleration: number): number {
    const v0 = Math.sqrt(square);
    const { jerk } = this;
    const rise = (acceleration * acceleration) / jerk;
    // Where full acceleration is reached: v² + r·v + r·v0 − v0² = 2·a·s.
    const longest = (2 * v0 + rise) * Math.sqrt(rise / jerk);
    if (length >= longest) {
      const rest = 2 * acceleration * length + square - rise * v0;
      const v = (Math.sqrt(rise * rise + 4 * rest) - rise) / 2;
      return v * v;
    }
    // Where it is not: s³ + 2·v0·s = length · √jerk, s the root of what the speed gains. Newton's steps, from above.
    const q = length * Math.sqrt(jerk);
    const p = 2 * v0;
    let root = Math.min(Math.cbrt(q), q / p);
    for (let before = Infinity; before - root > sameSpeed * root; ) {
      before = root;
      root -= (root * (root * root + p) - q) / (3 * root * root + p);
    }
    const v = v0 + root * root;
    return v * v;
  }

  time(length: number, v0: number, v1: number, top: number, acceleration: number): number {
    if (v0 === top && v1 === top) return length / top;
    const [up, down] = [this.seconds(top - v0, acceleration), this.seconds(top - v1, acceleration)];
    const ramps = ((v0 + top) * up + (v1 + top) * down) / 2;
    if (ramps <= length) return up + down + (length - ramps) / top;
    const peak = this.peak(length, v0, v1, top, acceleration);
    return this.seconds(peak - v0, acceleration) + this.seconds(peak - v1, acceleration);
  }

  runUp(speed: number, acceleration: number): number {
    return (speed * this.seconds(speed, acceleration)) / 2;
  }

  /** The highest speed in between: Newton's steps, halving where one leads out of what is left. */
  private peak(length: number, v0: number, v1: number, top: number, acceleration: number): number {
    let low = Math.max(v0, v1);
    let high = top;
    let peak = (low + high) / 2;
    while (high - low > sameSpeed * top) {
      const [up, down] = [this.seconds(peak - v0, acceleration), this.seconds(peak - v1, acceleration)];
      const over = ((v0 + peak) * up + (v1 + peak) * down) / 2 - length;
      if (over > 0) high = peak;
      else low = peak;
      const slope =
        (up +
          down +
          (v0 + peak) * this.slope(peak - v0, acceleration) +
          (v1 + peak) * this.slope(peak - v1, acceleration)) /
        2;
      const next = peak - over / slope;
      const stays = next > low && next < high;
      if (stays && Math.abs(next - peak) <= sameSpeed * top) return next;
      peak = stays ? next : (low + high) / 2;
    }
    return peak;
  }

  /** How long it takes to gain so much speed. */
  private seconds(gain: number, acceleration: number): number {
    const rise = (acceleration * acceleration) / this.jerk;
    if (gain >= rise) return gain / acceleration + acceleration / this.jerk;
    return 2 * Math.sqrt(Math.max(0, gain) / this.jerk);
  }

  /** How much longer it takes for each mm/s more. */
  private slope(gain: number, acceleration: number): number {
    if (gain >= (acceleration * acceleration) / this.jerk) return 1 / acceleration;
    return 1 / Math.sqrt(Math.max(1e-12, gain) * this.jerk);
  }
}

/** The ramps of a machine. @param jerk in mm/s³; missing where acceleration sets in at once */
export function rampsOf(jerk: number | undefined): Ramps {
  return jerk === undefined ? evenRamps : new SmoothRamps(jerk);
}
