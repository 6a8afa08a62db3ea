import { useStore } from 'zustand';
import { picturesReady } from './pictures.ts';

/** How many pictures are ready; what shows them is shown again when one more is. */
export function usePictures(): number {
  return useStore(picturesReady, ({ ready }) => ready);
}
