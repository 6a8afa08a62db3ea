import { create } from 'zustand';

/** What was typed and not sent yet, by whom it is for: kept while a panel is closed, until the page is left. */
const useDrafts = create<{ readonly texts: Readonly<Record<string, string>> }>(() => ({ texts: {} }));

/** A message that is being written. @param to a job, or the token of a sending. @returns its text, and what changes it. */
export function useDraft(to: string): [string, (text: string) => void] {
  const text = useDrafts(({ texts }) => texts[to] ?? '');
  const change = (next: string) => useDrafts.setState(({ texts }) => ({ texts: { ...texts, [to]: next } }));
  return [text, change];
}
