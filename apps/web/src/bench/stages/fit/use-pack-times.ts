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

/**
 * The times of a job that is laid as it was packed; null until they are known. While better packings come, the times stay those
 * of the last that was planned.
 */
export function usePackTimes(pack: JobPack, packing: Packing, laidWith: Laying): PackTimes | null {
  const actions = useBenchActions();
  const [times, setTimes] = useState<PackTimes | null>(null);
  const [busyWith, setBusyWith] = useState<Packing | null>(null);
  const [known, setKnown] = useState<Packing | null>(null);
  useEffect(() => {
    // One is planned at a time; then the best of those that came meanwhile.
    if (busyWith || known === packing) return;
    setBusyWith(packing);
    const state = actions.get();
    const laid = layPacked(jobOf(state), pack, packing, laidWith);
    void Promise.all(laid.runs.map(({ id }) => work('runExtent', [laid, state.shop, { runId: id, head: null }])))
      .then((extents) =>
        setTimes({
          timeS: extents.reduce((sum, { timeS }) => sum + timeS, 0),
          travelS: extents.reduce((sum, { travelS }) => sum + travelS, 0),
        }),
      )
      // What cannot be planned says nothing here; the checks say why.
      .catch(() => undefined)
      .finally(() => {
        setBusyWith(null);
        setKnown(packing);
      });
  }, [actions, pack, packing, laidWith, busyWith, known]);
  return times;
}
