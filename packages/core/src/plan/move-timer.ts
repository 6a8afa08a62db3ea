/** Times moves in their order. */
export interface MoveTimer {
  /**
   * A move of so many mm, at most at a speed in mm/s.
   * @param entry the square of the speed that its corner allows
   * @param acceleration along it, in mm/s²
   */
  move(length: number, top: number, entry: number, acceleration: number): void;
  /** The head comes to rest, and stands for so many seconds. @param lines of the program that say so. */
  stand(seconds: number, lines: number): void;
  /** The head comes to rest. */
  rest(): void;
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
