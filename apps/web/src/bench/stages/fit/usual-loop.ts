/** How large a loop is to begin with: a hole for a 3 mm cord. */
export const usualLoop = { u: 0.5, v: 0, holeMm: 3, rimMm: 2.5 };
