import { useEffect, useState } from 'react';
import { isTyping } from '../use-shortcuts.ts';

/**
 * Whether a key is held down now; keys that go into a field do not count. A button that was reached by the keys keeps the
 * key; one that was clicked does not, for the hand has gone on to the bed.
 */
export function useHeldKey(key: string): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    let isByKeys = false;
    const press = () => {
      isByKeys = false;
    };
    /** Whether something that the key would press was reached by the keys. */
    const isForTarget = ({ target }: KeyboardEvent) => isByKeys && target !== document.body;
    const down = (event: KeyboardEvent) => {
      if (event.key === 'Tab') isByKeys = true;
      if (event.key !== key || isTyping(event) || isForTarget(event)) return;
      event.preventDefault();
      event.stopPropagation();
      setHeld(true);
    };
    const up = (event: KeyboardEvent) => {
      if (event.key !== key) return;
      // A button would take the end of it for a press.
      if (!isTyping(event) && !isForTarget(event)) event.preventDefault();
      setHeld(false);
    };
    const away = () => setHeld(false);
    window.addEventListener('pointerdown', press, { capture: true });
    window.addEventListener('keydown', down, { capture: true });
    window.addEventListener('keyup', up, { capture: true });
    window.addEventListener('blur', away);
    return () => {
      window.removeEventListener('pointerdown', press, { capture: true });
      window.removeEventListener('keydown', down, { capture: true });
      window.removeEventListener('keyup', up, { capture: true });
      window.removeEventListener('blur', away);
    };
  }, [key]);
  return held;
}
