import type { Finding } from '@lambent/core/checks';
import { mendedAll } from '@lambent/core/mends';
import { Button } from '../../../ui/button.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { isPlanned } from '../../state/plan.ts';

/** Does the usual mend of every finding that has a safe one, as one edit; nothing stands here where there is one at most. */
export function MendAll({ findings }: { findings: readonly Finding[] }) {
  const actions = useBenchActions();
  const current = useBench(isPlanned);
  const safe = findings.flatMap(({ mends = [] }) => mends.find(({ isSafe }) => isSafe) ?? []);
  if (safe.length < 2) return null;
  return (
    <Button
      className="w-full shrink-0"
      disabled={!current}
      onClick={() => {
        const { job, done } = mendedAll(jobOf(actions.get()), safe);
        actions.edit(t('mend {{done}} findings', { done: done.length }), () => job);
      }}
    >
      {t('Mend all {{safe}} that are safe', { safe: safe.length })}
    </Button>
  );
}
