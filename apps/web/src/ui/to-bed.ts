/**
 * Gives the keys to the bed after a field has taken what was typed, so that what follows is done with what is on it; the
 * Tab key goes on from the field all the same. In what is open over the bed, and where there is no bed, the field keeps
 * the keys.
 */
export function giveKeysToBed(field: HTMLElement): void {
  const bed = document.getElementById('bed');
  if (!bed || field.closest('[role=dialog], [data-headlessui-state]')) return;
  const goBack = ({ key, target }: KeyboardEvent) => {
    if (key === 'Tab' && target === bed && field.isConnected) field.focus({ preventScroll: true });
  };
  bed.focus({ preventScroll: true });
  bed.addEventListener('keydown', goBack);
  bed.addEventListener('blur', () => bed.removeEventListener('keydown', goBack), { once: true });
}
