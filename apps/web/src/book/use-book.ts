import type { Material } from '@lambent/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { Refusal, sentenceOf } from '../api.ts';

/** Changes the book as somebody, and has the page go by what it is then. */
export interface BookHold {
  /** Who changes it. */
  readonly by: string;
  readonly setBy: (by: string) => void;
  /** @returns the material as it is then; null where it was refused, which is said */
  readonly change: (ask: (by: string) => Promise<Material>, words?: string) => Promise<Material | null>;
}

export function useBook(): BookHold {
  const queries = useQueryClient();
  const [by, setBy] = useState(localStorage.getItem('witness') ?? '');
  return {
    by,
    setBy: (name) => {
      localStorage.setItem('witness', name);
      setBy(name);
    },
    change: async (ask, words) => {
      if (by.trim() === '') {
        toast.error('Say who you are first, at the top: the book keeps who changed what.');
        return null;
      }
      try {
        const kept = await ask(by.trim());
        queries.setQueryData<Material[]>(['materials'], (known = []) =>
          known.some(({ id }) => id === kept.id)
            ? known.map((one) => (one.id === kept.id ? kept : one))
            : [...known, kept],
        );
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
