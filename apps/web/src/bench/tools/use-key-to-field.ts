import { type RefObject, useEffect, useRef } from 'react';
import { isTyping } from '../use-shortcuts.ts';

/** Whether a key begins a number. */
export function beginsNumber(key: string): boolean {
  return /^[0-9.,(½¼⅛¾-]$/.test(key);
}

/**
 * Has a key that is pressed elsewhere than in a field go into the first field of a holder, which it brings to hand.
 * @param takes whether the key is for it; by then its fields are on the page
 */
export function useKeyToField(
  isOn: boolean,
  holder: RefObject<HTMLElement | null>,
  takes: (event: KeyboardEvent) => boolean,
): void {
  const latest = useRef(takes);
  latest.current = takes;
  useEffect(() => {
    if (!isOn) return;
    const begin = (event: KeyboardEvent) => {
      if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || !latest.current(event)) return;
      const input = holder.current?.querySelector('input');
      input?.focus();
      input?.select();
      event.stopImmediatePropagation();
    };
    window.addEventListener('keydown', begin, { capture: true });
    return () => window.removeEventListener('keydown', begin, { capture: true });
  }, [isOn, holder]);
}
