import { type JobPack, type Laying, layPacked, type Packing } from '@lambent/core/packing';
import { useEffect, useState } from 'react';
import { work } from '../../../workers/work.ts';
import { useBenchActions } from '../../context.ts';
import { jobOf } from '../../state/document.ts';

/** How long a job would burn, all its runs together, and how much of that it would move unlit, in seconds. */
export interface PackTimes {
  readonly timeS: number;
  readonly travelS: number;
}

/** What was found of a packing: its times, or null where it cannot be planned; the checks say why. */
interface Timed {
  readonly packing: Packing;
  readonly times: PackTimes | null;
}

/** The times of a job that is laid as it was packed; undefined until they are known, null where it cannot be planned. */
export function usePackTimes(pack: JobPack, packing: Packing, laidWith: Laying): PackTimes | null | undefined {
  const actions = useBenchActions();
  const [known, setKnown] = useState<Timed | null>(null);
  const [isBusy, setBusy] = useState(false);
  useEffect(() => {
    // One is planned at a time; then the best of those that came meanwhile.
    if (isBusy || known?.packing === packing) return;
    setBusy(true);
    const state = actions.get();
    const laid = layPacked(jobOf(state), pack, packing, laidWith);
    void Promise.all(laid.runs.map(({ id }) => work('runExtent', [laid, state.shop, { runId: id, head: null }])))
      .then(
        (extents): PackTimes => ({
          timeS: extents.reduce((sum, { timeS }) => sum + timeS, 0),
          travelS: extents.reduce((sum, { travelS }) => sum + travelS, 0),
        }),
        () => null,
      )
      .then((times) => {
        setKnown({ packing, times });
        setBusy(false);
      });
  }, [actions, pack, packing, laidWith, isBusy, known]);
  return known?.packing === packing ? known.times : undefined;
}
