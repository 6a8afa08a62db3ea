import { isBetterRank, type JobPack, type Laying, type Packing, packedOutlines } from '@lambent/core/packing';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { PackAsk, PackNews } from '../../../workers/pack.worker.ts';
import { useBenchActions } from '../../context.ts';

/** So long better packings are looked for. */
const lookSeconds = 60;
/** So many workers look at most; as many processors are left to the page and the plan. */
const mostWorkers = 4;

/** What a look for packings has come to. */
export interface PackLook {
  readonly pack: JobPack;
  readonly best: Packing | null;
  readonly tries: number;
  readonly isWorking: boolean;
  /** Whether it could not be worked out. */
  readonly isBroken: boolean;
}

/** Looks for packings in workers, better and better: what it has come to, and what begins, stops and forgets it. */
function usePackLook() {
  const [look, setLook] = useState<PackLook | null>(null);
  const workers = useRef<Worker[]>([]);
  const end = useCallback(() => {
    for (const worker of workers.current) worker.terminate();
    workers.current = [];
  }, []);
  useEffect(() => end, [end]);
  const begin = useCallback(
    (pack: JobPack) => {
      end();
      setLook({ pack, best: null, tries: 0, isWorking: true, isBroken: false });
      const count = Math.max(1, Math.min(mostWorkers, (navigator.hardwareConcurrency ?? 2) - 2));
      const tries = new Array<number>(count).fill(0);
      let working = count;
      workers.current = tries.map((_, i) => {
        const worker = new Worker(new URL('../../../workers/pack.worker.ts', import.meta.url), { type: 'module' });
        worker.onmessage = ({ data: { packing, tries: tried, isOver } }: MessageEvent<PackNews>) => {
          tries[i] = tried;
          if (isOver) working--;
          setLook((known) => {
            if (!known) return known;
            const isGain = packing && (!known.best || isBetterRank(packing.rank, known.best.rank));
            return {
              ...known,
              best: isGain ? packing : known.best,
              tries: tries.reduce((sum, more) => sum + more, 0),
              isWorking: working > 0,
            };
          });
        };
        worker.onerror = () => {
          end();
          setLook((known) => known && { ...known, isWorking: false, isBroken: known.best === null });
        };
        worker.postMessage({ wish: pack.wish, seed: i + 1, seconds: lookSeconds } satisfies PackAsk);
        return worker;
      });
    },
    [end],
  );
  const stop = useCallback(() => {
    end();
    setLook((known) => known && { ...known, isWorking: false });
  }, [end]);
  const forget = useCallback(() => {
    end();
    setLook(null);
  }, [end]);
  return { look, begin, stop, forget };
}

/**
 * A look for packings, whose best one is shown on the bed. It is forgotten where something else is to be packed.
 * @param pack what is to be packed now; null while nothing is
 */
export function useShownPacking(pack: JobPack | null, laidWith: Laying) {
  const actions = useBenchActions();
  const { look, forget, ...rest } = usePackLook();
  const isOld = look !== null && look.pack !== pack;
  useEffect(() => {
    if (isOld) forget();
  }, [isOld, forget]);
  const shown = isOld ? null : look;
  const outline = useMemo(
    () => (shown?.best ? packedOutlines(shown.pack, shown.best, laidWith.bed) : null),
    [shown, laidWith],
  );
  useEffect(() => {
    actions.showDraft(outline && { outline });
    return () => actions.showDraft(null);
  }, [actions, outline]);
  return { shown, forget, ...rest };
}
