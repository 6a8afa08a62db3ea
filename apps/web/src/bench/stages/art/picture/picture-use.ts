import { create } from 'zustand';

/** What an operator does with a picture. */
export type PictureUse = 'greys' | 'outlines';

interface Used {
  /** Which of them is open: as it was left with the last picture. */
  readonly use: PictureUse;
  /** The outlines of a picture that are being changed; null where none are. */
  readonly changing: string | null;
}

/** What is done with pictures in the Art drawer. */
export const usePictureUse = create<Used>(() => ({ use: 'greys', changing: null }));

/** Opens one of what can be done with a picture. */
export function showUse(use: PictureUse): void {
  usePictureUse.setState({ use });
}

/** Opens how outlines were found in their picture; null closes that. */
export function changeOutlines(itemId: string | null): void {
  usePictureUse.setState({ changing: itemId });
}
