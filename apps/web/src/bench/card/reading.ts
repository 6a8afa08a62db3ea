import {
  type CardCell,
  cardLayerId,
  type Item,
  itemsOfCard,
  type LaidCard,
  layCard,
  type TestCard,
} from '@lambent/core';
import { useMemo } from 'react';
import { useBench } from '../context.ts';
import { jobOf } from '../store.ts';
import { useRuns } from '../use-runs.ts';

/** A card that is read: how it is laid out, and where its cells lie in the job. */
export interface ReadCard {
  readonly laid: LaidCard;
  readonly card: TestCard;
  readonly items: readonly Item[];
  /** The item of a cell; none where somebody took it away. */
  readonly itemOf: (cell: CardCell) => Item | undefined;
}

/** The card of the job that is being read. */
export function useReadCard(): ReadCard | null {
  const cardId = useBench((state) => state.reading);
  const laid = useBench((state) => jobOf(state).cards.find(({ id }) => id === cardId) ?? null);
  const drawing = useBench((state) => jobOf(state).drawing);
  return useMemo(() => {
    if (!laid) return null;
    const items = itemsOfCard({ drawing }, laid.id);
    const byLayer = new Map(items.map((item) => [item.pinned, item]));
    return { laid, card: layCard(laid.wish), items, itemOf: ({ key }) => byLayer.get(cardLayerId(laid.id, key)) };
  }, [laid, drawing]);
}

/** The runs of the job that were burnt to their end, newest first, since the card lies in it. */
export function useBurns() {
  return useRuns().runs.filter(({ status }) => status === 'done');
}
