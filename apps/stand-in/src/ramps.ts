/** What a head can do; lengths in mm, accelerations in mm/s². */
export interface Limits {
  readonly acceleration: number;
  /** Of Y, where each axis is held to its own; null where the head as a whole is. */
  readonly accelerationY: number | null;
  readonly cornerDeviation: number;
  /** How fast the acceleration rises and falls, in mm/s³; missing where it sets in at once. */
  readonly jerk?: number;
  /** How far the straight ways that it makes of arcs may be off them, in mm; missing where it takes no arcs. */
  readonly arcsWithin?: number;
  /** How many moves it knows ahead of the one that it makes. */
  readonly lookAhead: number;
  /** How many seconds it needs to read a line before it knows it. */
  readonly lineS: number;
  /** How many seconds late its beam comes on and goes off; on time where nothing is said. */
  readonly lagS?: number;
}

/** How the speed of a move runs: it rises, is even, and falls. */
export interface Ramps {
  readonly v0: number;
  readonly v1: number;
  readonly peak: number;
  readonly upS: number;
  readonly evenS: number;
  readonly totalS: number;
  elapsed: number;
}

/** Where a move leads; one that stands leads nowhere. */
interface Leg {
  readonly dirX: number;
  readonly dirY: number;
  readonly stands: unknown;
}

/** How much speed a head can gain in a direction, in mm/s². */
export function accelerationAlong({ acceleration, accelerationY }: Limits, dirX: number, dirY: number): number {
  return accelerationY === null
    ? acceleration
    : Math.min(acceleration / Math.abs(dirX), accelerationY / Math.abs(dirY));
}

/** The speed at which centripetal acceleration on the corner's inscribed arc is all the machine has. */
export function cornerSpeed(before: Leg, after: Leg, limits: Limits): number {
  if (before.stands || after.stands) return 0;
  const cross = before.dirX * after.dirY - before.dirY * after.dirX;
  const dot = before.dirX * after.dirX + before.dirY * after.dirY;
  const halfTurn = Math.abs(Math.atan2(cross, dot)) / 2;
  const bulge = 1 - Math.cos(halfTurn);
  if (bulge < 1e-9) return Infinity;
  const inward = Math.hypot(after.dirX - before.dirX, after.dirY - before.dirY);
  const acceleration = accelerationAlong(
    limits,
    (after.dirX - before.dirX) / inward,
    (after.dirY - before.dirY) / inward,
  );
  const radius = (limits.cornerDeviation * Math.cos(halfTurn)) / bulge;
  return Math.sqrt(acceleration * Math.max(0, radius));
}

/** How many seconds a change of speed takes. */
export function secondsToGain(gain: number, a: number, jerk: number | undefined): number {
  if (jerk === undefined) return gain / a;
  return gain * jerk < a * a ? Math.sqrt((4 * gain) / jerk) : gain / a + a / jerk;
}

/** How far it leads. */
function gainLength(slow: number, fast: number, a: number, jerk: number | undefined): number {
  return ((slow + fast) / 2) * secondsToGain(fast - slow, a, jerk);
}

/** Halves until a speed is found: as often as a number has bits. */
function highest(low: number, high: number, fits: (speed: number) => boolean): number {
  let [least, most] = [low, high];
  for (let i = 0; i < 52 && most - least > 1e-9; i++) {
    const middle = (least + most) / 2;
    if (fits(middle)) least = middle;
    else most = middle;
  }
  return least;
}

/** The highest speed, up to `most`, from which the head comes down to another over a length. */
export function brakedFrom(most: number, to: number, length: number, a: number, jerk: number | undefined): number {
  if (most <= to || gainLength(to, most, a, jerk) <= length) return most;
  if (jerk === undefined) return Math.sqrt(to * to + 2 * a * length);
  return highest(to, most, (speed) => gainLength(to, speed, a, jerk) <= length);
}

/** The highest speed between two others, over a length. */
export function peakSpeed(
  v0: number,
  v1: number,
  top: number,
  length: number,
  a: number,
  jerk: number | undefined,
): number {
  const takes = (peak: number) => gainLength(v0, peak, a, jerk) + gainLength(v1, peak, a, jerk);
  const least = Math.max(v0, v1);
  if (takes(Math.max(top, least)) <= length) return Math.max(top, least);
  if (jerk === undefined) return Math.max(least, Math.sqrt((2 * a * length + v0 * v0 + v1 * v1) / 2));
  return highest(least, top, (peak) => takes(peak) <= length);
}

/** How much speed has been gained after some of the seconds of a change, and how far that led beyond the first speed. */
function gained(t: number, seconds: number, gain: number, a: number, jerk: number | undefined): [number, number] {
  if (seconds <= 0) return [0, 0];
  if (jerk === undefined) {
    const rate = gain / seconds;
    return [rate * t, (rate * t * t) / 2];
  }
  // It bends up, is straight, and bends down as it bent up.
  if (t > seconds / 2) {
    const [missing, short] = gained(seconds - t, seconds, gain, a, jerk);
    return [gain - missing, gain * (t - seconds / 2) + short];
  }
  const bend = Math.min(a / jerk, seconds / 2);
  const curved = Math.min(t, bend);
  const straight = t - curved;
  const speed = (jerk * curved * curved) / 2;
  const rate = jerk * curved;
  return [speed + rate * straight, (jerk * curved ** 3) / 6 + speed * straight + (rate * straight * straight) / 2];
}

/** How fast the head is in a move, in mm/s, and how far along it, in mm. */
export function alongRamps(run: Ramps, a: number, jerk: number | undefined): { speed: number; distance: number } {
  const { v0, v1, peak, upS, evenS, totalS, elapsed: t } = run;
  if (t < upS) {
    const [speed, ahead] = gained(t, upS, peak - v0, a, jerk);
    return { speed: v0 + speed, distance: v0 * t + ahead };
  }
  const up = ((v0 + peak) / 2) * upS;
  if (t < upS + evenS) return { speed: peak, distance: up + peak * (t - upS) };
  // Braking is speeding up, seen from its end.
  const downS = totalS - upS - evenS;
  const left = totalS - t;
  const [speed, ahead] = gained(left, downS, peak - v1, a, jerk);
  const all = up + peak * evenS + ((peak + v1) / 2) * downS;
  return { speed: v1 + speed, distance: all - v1 * left - ahead };
}
