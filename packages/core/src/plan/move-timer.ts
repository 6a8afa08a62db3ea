/** Times moves in their order. */
export interface MoveTimer {
  /**
   * A move of so many mm, at most at a speed in mm/s.
   * @param entry the square of the speed that its corner allows
   * @param acceleration along it, in mm/s²
   * @param characters of its line
   * @param isJoined whether it stands in the line of the move before it, which takes no reading of its own.
   */
  move(length: number, top: number, entry: number, acceleration: number, characters: number, isJoined: boolean): void;
  /**
   * The head comes to rest, and stands for so many seconds.
   * @param lines of the program that say so: the middle one is what takes the seconds
   */
  stand(seconds: number, lines: number, characters: number): void;
  /** The head comes to rest, and a line that switches something is read. Its time is part of what comes next. */
  switch(characters: number): void;
  /** The head comes to rest. */
  rest(): void;
}
