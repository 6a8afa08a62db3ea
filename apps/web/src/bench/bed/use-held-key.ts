import { useEffect, useState } from 'react';
import { isTyping } from '../use-shortcuts.ts';

/** Whether a key is held down now; keys that go into a field do not count. */
export function useHeldKey(key: string): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    const down = (event: KeyboardEvent) => {
      if (event.key !== key || isTyping(event) || event.target instanceof HTMLButtonElement) return;
      event.preventDefault();
      setHeld(true);
    };
    const up = (event: KeyboardEvent) => event.key === key && setHeld(false);
    const away = () => setHeld(false);
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', away);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', away);
    };
  }, [key]);
  return held;
}
