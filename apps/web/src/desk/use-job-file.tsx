import type { JobFileLook } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { lazy, type ReactNode, Suspense, useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { askWho } from '../stores/who.ts';
import { t } from '../words/words.ts';

const TakeJobFile = lazy(() => import('./take-job-file.tsx'));

interface Seen {
  readonly author: string;
  readonly file: File;
  readonly look: JobFileLook;
}

/**
 * Takes a job in that came as one file from another shop, or from a backup of one's own.
 * @returns how to take one, and the dialog that asks about it
 */
export function useJobFile(machines: readonly Machine[]): [take: (file: File) => Promise<void>, dialog: ReactNode] {
  const [seen, setSeen] = useState<Seen | null>(null);
  const take = async (file: File) => {
    try {
      const look = await api.lookAtJobFile(file);
      // What comes into the recipe book with it is signed.
      const author = await askWho();
      if (author !== null) setSeen({ author, file, look });
    } catch (error) {
      toast.error(t('{{name}} was not taken. {{error}}', { name: file.name, error: sentenceOf(error) }), {
        duration: 12_000,
      });
    }
  };
  const dialog = seen && (
    <Suspense>
      <TakeJobFile {...seen} machines={machines} close={() => setSeen(null)} />
    </Suspense>
  );
  return [take, dialog];
}
