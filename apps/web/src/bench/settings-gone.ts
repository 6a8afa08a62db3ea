import type { JobDocument } from '@lambent/core/document';
import { toast } from 'sonner';
import { t } from '../words/words.ts';
import type { BenchActions } from './state/bench-state.ts';
import { jobOf } from './state/document.ts';

type Settings = JobDocument['settings'];

const countOf = (settings: Settings) =>
  Object.values(settings).reduce((sum, changed) => sum + Object.keys(changed).length, 0);

/**
 * Says that settings that were changed by hand went with what they were for, and offers to keep them.
 *
 * @param before the job's settings before.
 * @param what they were for, such as `the other material`.
 */
export function saySettingsGone(actions: BenchActions, before: Settings, what: string): void {
  const lost = countOf(before) - countOf(jobOf(actions.get()).settings);
  if (lost <= 0) return;
  const words = t(
    lost === 1
      ? 'A setting that was changed by hand was for {{what}}, and is gone. All is as in the recipes.'
      : '{{lost}} settings that were changed by hand were for {{what}}, and are gone. All is as in the recipes.',
    { lost, what },
  );
  toast.message(words, {
    duration: 12_000,
    action: {
      label: lost === 1 ? t('Keep it') : t('Keep them'),
      onClick: () =>
        actions.edit(t('keep what was changed by hand'), (job) => ({
          ...job,
          settings: { ...before, ...job.settings },
        })),
    },
  });
}
