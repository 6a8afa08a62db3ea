/** Whether an event is of the words in a field. */
export function isInField({ target }: Event): boolean {
  return target instanceof HTMLElement && target.closest('input, textarea, [contenteditable]') !== null;
}
