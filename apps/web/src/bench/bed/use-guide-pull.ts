import { type PointerEvent, useCallback } from 'react';
import { useBenchActions } from '../context.ts';
import { newId } from '../new-id.ts';
import { dropGuide, movedGuide } from '../tools/guides.ts';
import { toBed } from './view.ts';

/** Pulls a guide line out of a ruler: it follows the pointer until that is let go; Escape gives it up. */
export function useGuidePull() {
  const actions = useBenchActions();
  return useCallback(
    (axis: 'x' | 'y', event: PointerEvent<Element>) => {
      if (event.button !== 0) return;
      event.preventDefault();
      const ruler = event.currentTarget;
      const frame = ruler.parentElement?.querySelector('canvas')?.getBoundingClientRect();
      if (!frame) return;
      const guide = { id: newId(), axis, at: 0 };
      const move = ({ clientX, clientY, altKey }: globalThis.PointerEvent) => {
        const state = actions.get();
        const free = toBed(state.view, clientX - frame.left, clientY - frame.top);
        actions.showGuide(movedGuide(state, guide, { free, alt: altKey }));
      };
      const stop = () => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', up);
        window.removeEventListener('keydown', key, true);
      };
      const up = () => {
        stop();
        dropGuide(actions);
      };
      const key = (pressed: KeyboardEvent) => {
        if (pressed.key !== 'Escape') return;
        pressed.stopPropagation();
        stop();
        actions.showGuide(null);
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', up);
      window.addEventListener('keydown', key, true);
    },
    [actions],
  );
}
