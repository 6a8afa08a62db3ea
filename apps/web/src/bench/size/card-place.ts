import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { Stage } from '../stages/stage.ts';

/** Where the size card lies, and how much of it is shown; remembered in this browser. */
interface CardPlace {
  readonly isDocked: boolean;
  /** While it floats: how far from the right and the top of the bed's place, in pixels. */
  readonly right: number;
  readonly top: number;
  /** At which stages it shows but its title; unless it was chosen, at those that are not about places. */
  readonly folded: Partial<Record<Stage, boolean>>;
}

export const useCardPlace = create<CardPlace>()(
  persist((): CardPlace => ({ isDocked: true, right: 14, top: 36, folded: {} }), { name: 'size-card' }),
);

/** Whether the card is folded at a stage. */
export function useIsFolded(stage: Stage): boolean {
  return useCardPlace(({ folded }) => folded[stage] ?? (stage !== 'art' && stage !== 'bed'));
}

/** Folds the card at a stage to its title, or unfolds it. */
export function foldCard(stage: Stage, isFolded: boolean): void {
  useCardPlace.setState(({ folded }) => ({ folded: { ...folded, [stage]: isFolded } }));
}

/** Docks the card under the drawer, or has it float over the bed. */
export function dockCard(isDocked: boolean): void {
  useCardPlace.setState({ isDocked });
}

/** The place of the card that floats, as far as its head stays in sight. */
export function moveCard(right: number, top: number, room: { readonly width: number; readonly height: number }): void {
  const within = (value: number, most: number) => Math.max(0, Math.min(Math.max(0, most), value));
  useCardPlace.setState({ right: within(right, room.width - 120), top: within(top, room.height - 60) });
}
