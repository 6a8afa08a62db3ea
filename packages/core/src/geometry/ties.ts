/** How two parts meet. */
export type FitName = 'loose' | 'sliding' | 'snug' | 'press';

export const fitNames: readonly FitName[] = ['loose', 'sliding', 'snug', 'press'];

/** A fit as it was applied: how much wider than what goes in, in mm over the whole width. */
export interface FitTie {
  readonly fit: FitName;
  readonly clearanceMm: number;
}
