import { coming, Drive, gone, type Stretch, speedAfter } from './drive.ts';

/** Figures of the machine; lengths in mm, speeds in mm/s, accelerations in mm/s². */
export interface Figures {
  readonly width: number;
  readonly height: number;
  readonly travelSpeed: number;
  readonly topSpeed: number;
  readonly accelerations: readonly [x: number, y: number];
  readonly cornerDeviation: number;
  /** How fast acceleration rises and falls, in mm/s³; 0 where it is there at once. */
  readonly jerk: number;
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

/** A task, and which way it leads. */
interface Course extends Task {
  readonly length: number;
  readonly direction: readonly [x: number, y: number];
  readonly acceleration: number;
}

interface Leg extends Course {
  /** The highest speed at which it may begin, by the corner there. */
  readonly corner: number;
}

/** The leg under way, in stretches of time. */
interface Motion {
  readonly leg: Leg;
  readonly from: readonly [x: number, y: number];
  readonly stretches: readonly Stretch[];
  readonly seconds: number;
  readonly endSpeed: number;
  at: number;
}

/** Whether a place can be reached; rounding aside. */
export function isOnBed({ width, height }: Figures, [x, y]: readonly [number, number]): boolean {
  const slack = 1e-6;
  return x >= -slack && y >= -slack && x <= width + slack && y <= height + slack;
}

/** Makes moves one after the other, in machine time. How fast a move ends is settled when it begins. */
export class Head {
  place: readonly [number, number] = [0, 0];
  private readonly waiting: Leg[] = [];
  private motion: Motion | null = null;
  private speedBefore = 0;
  /** The last leg that it was given. */
  private before: Course | null = null;
  private readonly drive: Drive;
  private end: readonly [number, number] = [0, 0];

  constructor(private readonly figures: Figures) {
    this.drive = new Drive(figures.jerk);
  }

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
    return speedAfter(motion.stretches, motion.at);
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
    const leg = { ...task, length, direction, acceleration: this.along(direction) };
    const corner = this.before ? this.throughCorner(this.before, leg) : 0;
    this.before = leg;
    this.waiting.push({ ...leg, corner });
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
      const along = gone(motion.stretches, motion.at);
      const { from, leg } = motion;
      this.place = [from[0] + leg.direction[0] * along, from[1] + leg.direction[1] * along];
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
    this.motion = this.before = null;
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
      const stretches = [{ seconds: leg.waitS, v: 0, gain: 0, turn: 0 }];
      this.motion = { leg, from, stretches, seconds: leg.waitS, endSpeed: 0, at: 0 };
      return true;
    }
    const { acceleration: a, length } = leg;
    const v0 = this.speedBefore;
    const v1 = this.drive.most(this.speedAfter(), v0, length, a);
    const stretches = this.drive.stretches(v0, v1, leg.speed, length, a);
    this.motion = { leg, from, stretches, seconds: coming(stretches), endSpeed: v1, at: 0 };
    return true;
  }

  /** How fast the head may be after the leg that begins: it keeps to all corners that are known, and can come to rest. */
  private speedAfter(): number {
    const { waiting } = this;
    let speed = 0;
    for (let i = Math.min(waiting.length, this.figures.lookAhead) - 1; i >= 0; i--) {
      const { corner, length, acceleration } = waiting[i];
      speed = this.drive.most(corner, speed, length, acceleration);
    }
    return speed;
  }

  /** The circle that touches both legs and leaves the corner by the deviation has radius r; v² = a·r. */
  private throughCorner(before: Course, after: Course): number {
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
