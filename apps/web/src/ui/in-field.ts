/** Whether an event of the clipboard is of the words in a field. */
export function isInField({ target }: ClipboardEvent): boolean {
  return target instanceof HTMLElement && target.closest('input, textarea, [contenteditable]') !== null;
}
