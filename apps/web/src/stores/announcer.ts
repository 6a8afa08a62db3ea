import { create } from 'zustand';

interface Announced {
  /** Said once the screen reader has nothing else to say. */
  readonly polite: string;
  /** Said at once. */
  readonly urgent: string;
}

/** What is said to who cannot see it change. */
export const useAnnounced = create<Announced>(() => ({ polite: '', urgent: '' }));

/** Says something to who cannot see it change. @param isUrgent whether it is said before anything else */
export function announce(words: string, isUrgent = false): void {
  useAnnounced.setState(isUrgent ? { urgent: words } : { polite: words });
}
