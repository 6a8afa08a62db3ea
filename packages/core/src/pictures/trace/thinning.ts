/** The eight neighbours of a pixel, clockwise from the one above, as steps across and down. */
const around = [
  [0, -1],
  [1, -1],
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
] as const;

/** The same as steps in a raster of a width. */
export function stepsAround(width: number): number[] {
  return around.map(([across, down]) => down * width + across);
}

/** How often one goes from ground to figure on the way around a pixel: 1 at an end, 2 on a line, more at a joint. */
export function crossingsAround(mask: Uint8Array, steps: readonly number[], i: number): number {
  let crossings = 0;
  for (let k = 0; k < 8; k++) if (mask[i + steps[k]] === 0 && mask[i + steps[(k + 1) % 8]] === 1) crossings++;
  return crossings;
}

/**
 * Thins a figure to lines of one pixel along its middle, joined as it was (Zhang and Suen, 1984). What is then two
 * pixels thick at a stair is taken away as well.
 *
 * @param mask 1 in the figure, 0 around, with a frame of zeros of a pixel; it is changed.
 * @returns the pixels that are left, from the top.
 */
export function thin(mask: Uint8Array, width: number): number[] {
  const steps = stepsAround(width);
  let pixels: number[] = [];
  for (let i = 0; i < mask.length; i++) if (mask[i] === 1) pixels.push(i);
  const goes = (i: number, isFirst: boolean): boolean => {
    const count = steps.reduce((sum, step) => sum + mask[i + step], 0);
    if (count < 2 || count > 6 || crossingsAround(mask, steps, i) !== 1) return false;
    const [up, right, down, left] = [mask[i + steps[0]], mask[i + steps[2]], mask[i + steps[4]], mask[i + steps[6]]];
    return isFirst
      ? up * right * down === 0 && right * down * left === 0
      : up * right * left === 0 && up * down * left === 0;
  };
  for (let isDone = false; !isDone; ) {
    isDone = true;
    for (const isFirst of [true, false]) {
      const leaving = pixels.filter((i) => goes(i, isFirst));
      if (leaving.length === 0) continue;
      for (const i of leaving) mask[i] = 0;
      pixels = pixels.filter((i) => mask[i] === 1);
      isDone = false;
    }
  }
  for (const i of pixels) if (isStair(mask, steps, i)) mask[i] = 0;
  return pixels.filter((i) => mask[i] === 1);
}

/** Whether a pixel fills the corner of a stair: the two beside it touch each other without it, and nothing else needs it. */
function isStair(mask: Uint8Array, steps: readonly number[], i: number): boolean {
  return [0, 2, 4, 6].some((k) => {
    const isIn = (turns: number) => mask[i + steps[(k + turns) % 8]] === 1;
    return isIn(0) && isIn(2) && !isIn(4) && !isIn(5) && !isIn(6);
  });
}
