/** A length as it is said in words: to a hundredth, in mm. */
export const rounded = (mm: number) => Math.round(mm * 100) / 100;

/** What is less is rounding, in hundredths. */
const slack = 1e-7;

/** To the next hundredth above, in mm: where so much is needed. */
export const roundedUp = (mm: number) => Math.ceil(mm * 100 - slack) / 100;

/** To the next hundredth below, in mm: where no more can be. */
export const roundedDown = (mm: number) => Math.floor(mm * 100 + slack) / 100;

/** Into how many pieces of about a width a length is shared out: an odd number, so that both of its ends are alike. */
export const oddPieces = (lengthMm: number, aimMm: number) =>
  Math.max(1, 2 * Math.round((lengthMm / aimMm - 1) / 2) + 1);
