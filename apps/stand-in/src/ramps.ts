/** What a head can do; lengths in mm, accelerations in mm/s². */
export interface Limits {
  readonly acceleration: number;
  /** Of Y, where each axis is held to its own; null where the head as a whole is. */
  readonly accelerationY: number | null;
  readonly cornerDeviation: number;
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

/** How fast the head is in a move, in mm/s. */
export function speedAt(run: Ramps, a: number): number {
  if (run.elapsed < run.upS) return run.v0 + a * run.elapsed;
  if (run.elapsed < run.upS + run.evenS) return run.peak;
  return run.peak - a * (run.elapsed - run.upS - run.evenS);
}

/** How far along a move the head is, in mm. */
export function distanceAt(run: Ramps, a: number): number {
  const t = run.elapsed;
  if (t < run.upS) return run.v0 * t + (a * t * t) / 2;
  const up = ((run.v0 + run.peak) / 2) * run.upS;
  if (t < run.upS + run.evenS) return up + run.peak * (t - run.upS);
  const down = t - run.upS - run.evenS;
  return up + run.peak * run.evenS + run.peak * down - (a * down * down) / 2;
}
