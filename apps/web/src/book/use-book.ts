import type { Material } from '@lambent/core/recipes';
import { useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { toast } from 'sonner';
import { Refusal, sentenceOf } from '../api.ts';
import { askWho, useWho } from '../stores/who.ts';

/** Changes the book as somebody, and has the page go by what it is then. */
export interface BookHold {
  /** Who changes it. */
  readonly by: string;
  /**
   * One change after another, each of the book as the one before it left it.
   * @param ask gets who asks, and what the page knows of a material by then
   * @returns the material as it is then; null where it was refused, which is said
   */
  readonly change: (
    ask: (author: string, known: (id: string) => Material | undefined) => Promise<Material>,
    words?: string,
  ) => Promise<Material | null>;
}

/** What changes the recipe book, one change after the other, each signed. */
export function useBook(): BookHold {
  const queries = useQueryClient();
  const who = useWho();
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const take = (kept: Material) =>
    queries.setQueryData<Material[]>(['materials'], (all = []) =>
      all.some(({ id }) => id === kept.id)
        ? all.map((material) => (material.id === kept.id ? kept : material))
        : [...all, kept],
    );
  return {
    by: who,
    change: async (ask, words) => {
      // The book keeps who changed what.
      const author = await askWho();
      if (author === null) return null;
      const known = (id: string) =>
        queries.getQueryData<Material[]>(['materials'])?.find((material) => material.id === id);
      const asked = last.current.then(() => ask(author, known));
      // What comes next waits for this one, whatever becomes of it.
      last.current = asked.then(take).catch(() => {});
      try {
        const kept = await asked;
        await queries.invalidateQueries({ queryKey: ['book-history', kept.id] });
        if (words) toast.message(words);
        return kept;
      } catch (error) {
        toast.error(sentenceOf(error), { duration: 12_000 });
        if (error instanceof Refusal && error.code === 'changed-meanwhile') {
          await queries.invalidateQueries({ queryKey: ['materials'] });
        }
        return null;
      }
    },
  };
}
