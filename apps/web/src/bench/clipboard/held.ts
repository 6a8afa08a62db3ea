/** What was copied last in this browser: as Lambent reads it, and as SVG for other programs. */
export interface HeldCopy {
  readonly text: string;
  readonly svg: string;
}

/** By which the clipboard tells it from other text. */
export const copiedType = 'application/vnd.lambent.copied+json';

const name = 'lambent copied';
/** What is too large for the browser to keep is held for as long as the page is open. */
let here: HeldCopy | null = null;

/** Holds what was copied, for every window of this browser. */
export function holdCopy(copy: HeldCopy): void {
  here = copy;
  try {
    localStorage.setItem(name, JSON.stringify(copy));
  } catch {
    localStorage.removeItem(name);
  }
}

/** What was copied last, here or in another window; null where nothing was. */
export function heldCopy(): HeldCopy | null {
  try {
    const kept = localStorage.getItem(name);
    return kept === null ? here : (JSON.parse(kept) as HeldCopy);
  } catch {
    return here;
  }
}

/** What Lambent copied, where a clipboard holds that; null where it is something else. */
export function copiedIn(data: DataTransfer): string | null {
  const own = data.getData(copiedType);
  if (own !== '') return own;
  // Pasted as plain text it has lost the form that is ours, and is known by its words.
  const held = heldCopy();
  return held && data.getData('text/plain').trim() === held.svg.trim() ? held.text : null;
}
