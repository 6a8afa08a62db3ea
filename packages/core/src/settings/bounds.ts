/** A number brought into bounds; what is no number becomes the least. */
export const brought = (value: number, least: number, most: number) =>
  Number.isNaN(value) ? least : Math.min(most, Math.max(least, value));

/** Whether a number lies between two, both included. */
export const isWithin = (value: number, least: number, most: number) => value >= least && value <= most;

/** Scan lines further apart, in mm, are lines of their own. */
export const widestSpacing = 5;
