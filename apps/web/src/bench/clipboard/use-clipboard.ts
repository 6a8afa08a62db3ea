import { useEffect } from 'react';
import { toast } from 'sonner';
import { sentenceOf } from '../../api.ts';
import { isInField } from '../../ui/in-field.ts';
import { t } from '../../words/words.ts';
import { deleteSelection } from '../commands.ts';
import type { BenchActions } from '../state/bench-state.ts';
import type { PastePlace } from './copying.ts';
import { copiedIn, copiedType, type HeldCopy, heldCopy } from './held.ts';

const load = () => import('./copying.ts');
type Copying = Awaited<ReturnType<typeof load>>;

/** What reads and writes copies, once it was fetched. */
let copying: Copying | null = null;

async function fetched(): Promise<Copying> {
  copying ??= await load();
  return copying;
}

/** The system's clipboard on the Bench: what is selected is copied and cut, what was copied is pasted. */
export function useClipboard(actions: BenchActions): void {
  useEffect(() => {
    // The clipboard is written while it says so, which waits for nothing.
    void fetched().catch(() => undefined);
    const onCopy = (event: ClipboardEvent) => {
      if (isOfText(event) || !event.clipboardData || actions.get().selection.size === 0) return;
      event.preventDefault();
      const copy = copying?.copySelection(actions);
      if (copy) {
        put(event.clipboardData, copy);
        if (event.type === 'cut') deleteSelection(actions);
      } else toast.message(t('It was not copied: try again.'));
    };
    const onPaste = (event: ClipboardEvent) => {
      const text = isInField(event) || !event.clipboardData ? null : copiedIn(event.clipboardData);
      if (text === null) return;
      event.preventDefault();
      // With Shift the browser pastes plain words, which is how it says so.
      const place = event.clipboardData?.getData(copiedType) ? 'aside' : 'in place';
      paste(actions, text, place);
    };
    // Before files that are pasted are looked for.
    window.addEventListener('copy', onCopy);
    window.addEventListener('cut', onCopy);
    window.addEventListener('paste', onPaste, { capture: true });
    return () => {
      window.removeEventListener('copy', onCopy);
      window.removeEventListener('cut', onCopy);
      window.removeEventListener('paste', onPaste, { capture: true });
    };
  }, [actions]);
}

/** Copies or cuts the selection, as the keys do. */
export function copyByButton(actions: BenchActions, isCut: boolean): void {
  const put = async () => {
    // The clipboard is the system's where the browser lets a button write it; what was copied is held in any case.
    if (document.execCommand(isCut ? 'cut' : 'copy')) return;
    (await fetched()).copySelection(actions);
    if (isCut) deleteSelection(actions);
  };
  put().catch((error) => toast.error(sentenceOf(error)));
}

/** Pastes what was copied last in this browser. */
export function pasteHeld(actions: BenchActions, place: PastePlace): void {
  const held = heldCopy();
  if (held) paste(actions, held.text, place);
}

function paste(actions: BenchActions, text: string, place: PastePlace): void {
  fetched()
    .then(({ pasteCopied }) => pasteCopied(actions, text, place))
    .catch((error) => toast.error(sentenceOf(error)));
}

function put(data: DataTransfer, { text, svg }: HeldCopy): void {
  data.setData(copiedType, text);
  data.setData('text/plain', svg);
}

/** Whether words are copied: out of a field, or marked on the page. */
function isOfText(event: ClipboardEvent): boolean {
  return isInField(event) || (window.getSelection()?.toString() ?? '') !== '';
}
