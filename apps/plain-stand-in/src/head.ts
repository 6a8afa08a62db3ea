/** Figures of the machine; lengths in mm, speeds in mm/s, accelerations in mm/s². */
export interface Figures {
  readonly width: number;
  readonly height: number;
  readonly travelSpeed: number;
  readonly topSpeed: number;
  readonly accelerations: readonly [x: number, y: number];
  readonly cornerDeviation: number;
  /** How many moves are known beside the one that is made. */
  readonly lookAhead: number;
}

/** A straight move to a place, or a wait of so many seconds where the head is. */
export interface Task {
  readonly to: readonly [x: number, y: number];
  readonly speed: number;
  readonly waitS: number;
  /** The S word while it is made, and whether the power follows the speed. */
  readonly power: number;
  readonly follows: boolean;
}

interface Leg extends Task {
  readonly length: number;
  readonly direction: readonly [x: number, y: number];
  readonly acceleration: number;
}

/** The leg under way: three stretches of time, in each of which the speed changes evenly. */
interface Motion {
  readonly leg: Leg;
  readonly from: readonly [x: number, y: number];
  readonly stretches: readonly { readonly seconds: number; readonly v: number; readonly gain: number }[];
  readonly seconds: number;
  readonly endSpeed: number;
  at: number;
}

/** Makes moves one after the other, in machine time. How fast a move ends is settled when it begins. */
export class Head {
  place: readonly [number, number] = [0, 0];
  private readonly waiting: Leg[] = [];
  private motion: Motion | null = null;
  private speedBefore = 0;
  private end: readonly [number, number] = [0, 0];

  constructor(private readonly figures: Figures) {}

  /** How many moves more it takes. */
  get room(): number {
    return this.figures.lookAhead + (this.motion ? 0 : 1) - this.waiting.length;
  }

  get isStill(): boolean {
    return this.motion === null && this.waiting.length === 0;
  }

  get speed(): number {
    const { motion } = this;
    if (!motion) return 0;
    let left = motion.at;
    for (const { seconds, v, gain } of motion.stretches) {
      if (left <= seconds) return v + gain * left;
      left -= seconds;
    }
    return motion.endSpeed;
  }

  /** What the beam burns with, on the scale of S. */
  get power(): number {
    const leg = this.motion?.leg;
    if (!leg) return 0;
    return leg.follows ? (leg.speed > 0 ? (leg.power * this.speed) / leg.speed : 0) : leg.power;
  }

  /** Where the moves that it was given end. */
  get target(): readonly [number, number] {
    return this.end;
  }

  give(task: Task): void {
    const [dx, dy] = [task.to[0] - this.end[0], task.to[1] - this.end[1]];
    const length = Math.hypot(dx, dy);
    if (length === 0 && task.waitS === 0) return;
    const direction: readonly [number, number] = length === 0 ? [0, 0] : [dx / length, dy / length];
    this.waiting.push({ ...task, length, direction, acceleration: this.along(direction) });
    this.end = task.to;
  }

  /**
   * Lets machine time pass, as far as the end of a move: what waits for room is taken there.
   * @returns how many of the seconds have passed
   */
  pass(seconds: number): number {
    if (!this.begin()) return seconds;
    const motion = this.motion as Motion;
    const step = Math.min(seconds, motion.seconds - motion.at);
    motion.at += step;
    if (motion.seconds - motion.at > 1e-12) {
      const gone = distance(motion);
      const { from, leg } = motion;
      this.place = [from[0] + leg.direction[0] * gone, from[1] + leg.direction[1] * gone];
    } else {
      this.place = motion.leg.to;
      this.speedBefore = motion.endSpeed;
      this.motion = null;
    }
    return step;
  }

  /** Drops what it has, and stands where it is. */
  drop(): void {
    this.waiting.length = 0;
    this.motion = null;
    this.speedBefore = 0;
    this.end = this.place;
  }

  goHome(): void {
    this.place = [0, 0];
    this.drop();
  }

  private begin(): boolean {
    if (this.motion) return true;
    const leg = this.waiting.shift();
    if (!leg) {
      this.speedBefore = 0;
      return false;
    }
    const from = this.place;
    if (leg.waitS > 0) {
      const stretches = [{ seconds: leg.waitS, v: 0, gain: 0 }];
      this.motion = { leg, from, stretches, seconds: leg.waitS, endSpeed: 0, at: 0 };
      return true;
    }
    const { acceleration: a, length } = leg;
    const v0 = this.speedBefore;
    const v1 = Math.min(this.speedAfter(leg), Math.sqrt(v0 * v0 + 2 * a * length));
    const top = Math.max(v0, v1, Math.min(leg.speed, Math.sqrt(a * length + (v0 * v0 + v1 * v1) / 2)));
    const [up, down] = [(top - v0) / a, (top - v1) / a];
    const even = Math.max(0, length - (up * (v0 + top)) / 2 - (down * (v1 + top)) / 2) / top;
    const stretches = [
      { seconds: up, v: v0, gain: a },
      { seconds: even, v: top, gain: 0 },
      { seconds: down, v: top, gain: -a },
    ];
    this.motion = { leg, from, stretches, seconds: up + even + down, endSpeed: v1, at: 0 };
    return true;
  }

  /** How fast the head may be after a leg, so that it can keep to all corners that are known, and come to rest. */
  private speedAfter(leg: Leg): number {
    const legs = [leg, ...this.waiting.slice(0, this.figures.lookAhead)];
    let speed = 0;
    for (let i = legs.length - 1; i > 0; i--) {
      speed = Math.sqrt(speed * speed + 2 * legs[i].acceleration * legs[i].length);
      speed = Math.min(speed, this.throughCorner(legs[i - 1], legs[i]));
    }
    return speed;
  }

  /** The circle that touches both legs and leaves the corner by the deviation has radius r; v² = a·r. */
  private throughCorner(before: Leg, after: Leg): number {
    if (before.waitS > 0 || after.waitS > 0) return 0;
    const top = Math.min(before.speed, after.speed);
    const inward = [after.direction[0] - before.direction[0], after.direction[1] - before.direction[1]] as const;
    const size = Math.hypot(...inward);
    if (size < 1e-9) return top;
    // Half the angle between the legs: its cosine is half the length of the difference of their directions.
    const sine = Math.sqrt(Math.max(0, 1 - (size * size) / 4));
    const radius = (this.figures.cornerDeviation * sine) / (1 - sine);
    return Math.min(top, Math.sqrt(this.along([inward[0] / size, inward[1] / size]) * radius));
  }

  private along([x, y]: readonly [number, number]): number {
    const [ax, ay] = this.figures.accelerations;
    return Math.min(ax / Math.abs(x), ay / Math.abs(y));
  }
}

function distance({ stretches, at }: Motion): number {
  let left = at;
  let gone = 0;
  for (const { seconds, v, gain } of stretches) {
    const part = Math.min(left, seconds);
    gone += v * part + (gain * part * part) / 2;
    left -= part;
  }
  return gone;
}
