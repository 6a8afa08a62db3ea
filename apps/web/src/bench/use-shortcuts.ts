import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { openBedMenu } from './menus/open-bed-menu.ts';
import { runShortcut, type Stroke } from './shortcuts.ts';
import type { BenchActions } from './state/bench-state.ts';

const notTyped = ['range', 'checkbox', 'radio', 'file'];

/** Whether a key goes into a field. Undo does not, in a field where nothing is half typed. */
export function isTyping({ target, key, ctrlKey, metaKey }: KeyboardEvent): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) {
    const undoes = (ctrlKey || metaKey) && ['z', 'y'].includes(key.toLowerCase());
    return !notTyped.includes(target.type) && !(undoes && target.dataset.settled === 'true');
  }
  return target.matches('textarea, select') || target.isContentEditable;
}

/** The Bench's keys (`shortcuts.ts`), wherever on it they are pressed. */
export function useShortcuts(actions: BenchActions, showKeys: () => void): void {
  const navigate = useNavigate();
  useEffect(() => {
    const open = (stage: string) => navigate(`/jobs/${actions.get().jobId}/${stage}`, { replace: true });
    const openMenu = () => openBedMenu(actions, null);
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event) || event.defaultPrevented || isElsewhere(event)) return;
      if (runShortcut({ actions, open, showKeys, openMenu }, strokeOf(event))) event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions, navigate, showKeys]);
}

function strokeOf({ key, code, ctrlKey, metaKey, shiftKey, altKey, target }: KeyboardEvent): Stroke {
  const on = target instanceof HTMLInputElement ? 'field' : target instanceof HTMLButtonElement ? 'button' : null;
  return { key: key.toLowerCase(), code, ctrl: ctrlKey || metaKey, shift: shiftKey, alt: altKey, on };
}

/** Whether a list or a dialog that is open takes the key. */
function isElsewhere({ target }: KeyboardEvent): boolean {
  return target instanceof HTMLElement && target.closest('[role=listbox], [role=dialog], [role=radiogroup]') !== null;
}
