import { cardOfLayer, type Layer } from '@lambent/core/document';
import { useMemo } from 'react';
import { useBench } from './context.ts';

/** The layers that things can be put on: all but those of test cards, which hold their cells and nothing else. */
export function ownLayers(layers: readonly Layer[]): readonly Layer[] {
  return layers.filter(({ id }) => cardOfLayer(id) === null);
}

/** Those of the job that is open. */
export function useOwnLayers(): readonly Layer[] {
  const layers = useBench((state) => state.prepared.meaning.layers);
  return useMemo(() => ownLayers(layers), [layers]);
}
