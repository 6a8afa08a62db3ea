import type { CardMark } from '@lambent/core/document';
import type { Change, Read } from './slice.ts';

/** What a click makes of a cell. */
export type CardBrush = CardMark | 'best';

/** The reading of a test card. */
export interface CardState {
  /** The card that is being read, and of which burn by the run's id (null for the last one); null while none is. */
  readCard: { readonly id: string; readonly runId: string | null } | null;
  cardBrush: CardBrush;
}

export const noCard: CardState = { readCard: null, cardBrush: 'good' };

/** What changes the slice of the test card in one's hand. */
export function cardActions(get: Read<CardState>, change: Change<CardState>) {
  return {
    startReading: (id: string) => change({ readCard: { id, runId: null } }),
    /** Reads the same card as another burn made it. */
    readBurn(runId: string | null): void {
      const { readCard } = get();
      if (readCard) change({ readCard: { ...readCard, runId } });
    },
    endReading: () => change({ readCard: null }),
    takeBrush: (cardBrush: CardBrush) => change({ cardBrush }),
  };
}
