import { useEffect } from 'react';

/** Escape leaves what is open, unless a field, a list or a dialog takes it. */
export function useEscape(leave: () => void): void {
  useEffect(() => {
    const listen = ({ key, target }: KeyboardEvent) => {
      const elsewhere =
        target instanceof HTMLElement && target.closest('input, textarea, [role=listbox], [role=dialog]') !== null;
      if (key === 'Escape' && !elsewhere) leave();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [leave]);
}
