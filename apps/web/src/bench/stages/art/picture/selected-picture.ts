import { type Item, itemsAmong } from '@lambent/core/document';
import { burnsPictures } from '@lambent/core/operations';
import type { PreparedLayer } from '@lambent/core/plan';
import { type LayerSettings, usualSettings } from '@lambent/core/settings';
import type { BenchState } from '../../../state/bench-state.ts';
import { jobOf } from '../../../state/document.ts';

/** The picture that is selected, alone. */
export function selectedPicture(state: BenchState): Item | null {
  const item = selectedAlone(state);
  return item?.shape.kind === 'picture' ? item : null;
}

/** The picture that the outlines which are selected, alone, were made of. */
export function sourceOfTraced(state: BenchState): Item | null {
  const item = selectedAlone(state);
  if (item?.shape.kind !== 'traced') return null;
  const [source] = itemsAmong(jobOf(state).drawing, new Set(item.shape.sources));
  return source?.shape.kind === 'picture' ? source : null;
}

/** The item that is selected, alone. */
export function selectedAlone(state: BenchState): Item | null {
  if (state.selection.size !== 1) return null;
  const [item] = itemsAmong(jobOf(state).drawing, state.selection);
  return item ?? null;
}

/** The layer that burns the selected picture; null where none does. */
export function layerOfPicture(state: BenchState): PreparedLayer | null {
  const picture = selectedPicture(state);
  if (!picture) return null;
  const burns = ({ layer, placed }: PreparedLayer) =>
    burnsPictures(layer.operation) && placed.some(({ item }) => item.id === picture.id);
  return state.prepared.layers.find(burns) ?? null;
}

/** What pictures are shown with until there is a recipe. */
export const usualToneSettings: LayerSettings = { ...usualSettings(), powerPercent: 100, speedMmPerS: 100 };
