import type { ChangedSinceDetails, RunAnswer } from '@lambent/contracts';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, Refusal, sentenceOf } from '../../../../api.ts';
import { useInSentence } from '../../../../stores/numbers.ts';
import { useWho } from '../../../../stores/who.ts';
import { Button } from '../../../../ui/button.tsx';
import { Notice } from '../../../../ui/notice.tsx';
import { t } from '../../../../words/words.ts';

/** Sends the very program of a run once more; where it would be another by now, that is said first. */
export function BurnAgain({ run, disabled }: { run: RunAnswer; disabled: boolean }) {
  const inSentence = useInSentence();
  const who = useWho();
  const [changed, setChanged] = useState<ChangedSinceDetails | null>(null);
  const again = useMutation({
    mutationFn: (asItWas: boolean) =>
      api.burnAgain(run.id, { ...(asItWas ? { asItWas } : {}), ...(who ? { by: who } : {}) }),
    onSuccess: () => setChanged(null),
    onError: (error) => {
      if (error instanceof Refusal && error.code === 'changed-since') setChanged(error.details as ChangedSinceDetails);
      else toast.error(sentenceOf(error));
    },
  });
  if (!changed) {
    return (
      <Button disabled={disabled || again.isPending} onClick={() => again.mutate(false)}>
        {again.isPending ? t('Sending…') : t('Burn again')}
      </Button>
    );
  }
  return (
    <div className="w-full">
      <Notice level="warns" title={t('Not all is as it was')}>
        <ul className="mt-1 flex list-disc flex-col gap-0.5 pl-4">
          {changed.changes.map((change) => (
            <li key={change}>{inSentence(change)}</li>
          ))}
        </ul>
        <p className="mt-1.5">
          {changed.mayBurn
            ? t('Its program can be burnt as it was, or the job sent as it would be planned now.')
            : t('Its program is not for this machine as it is now. Send the job again.')}
        </p>
        <div className="mt-2 flex flex-wrap gap-1.5">
          {changed.mayBurn && (
            <Button disabled={disabled || again.isPending} onClick={() => again.mutate(true)}>
              {t('Burn it as it was')}
            </Button>
          )}
          <Button look="quiet" onClick={() => setChanged(null)}>
            {t('Never mind')}
          </Button>
        </div>
      </Notice>
    </div>
  );
}
