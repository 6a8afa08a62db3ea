import { useEffect } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { useLive } from '../stores/live.ts';
import { t } from '../words/words.ts';
import type { BenchActions } from './state/bench-state.ts';

/** Plans by the machines as they are: what is sent is planned anew by the server, and must come to the same. */
export function useMachines(actions: BenchActions): void {
  const changed = useLive((live) => live.machinesChanged);
  useEffect(() => {
    if (changed === 0) return;
    api
      .machines()
      .then((machines) => actions.takeShop({ ...actions.get().shop, machines }))
      .catch((error) =>
        toast.error(
          t('The machines were changed, and are not known here yet. {{error}}', { error: sentenceOf(error) }),
        ),
      );
  }, [changed, actions]);
}
