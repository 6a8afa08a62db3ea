import { type Item, type MadeOffset, type OffsetWish, wishedOffsets } from '@lambent/core';
import { useEffect, useState } from 'react';
import { sentenceOf } from '../../api.ts';
import { cancelFileWork, fileWorker, fileWorkStopped } from '../../workers/bench.ts';

export interface Offsets {
  /** What was last worked out; of an earlier wish while `working`. */
  readonly made: readonly MadeOffset[];
  readonly working: boolean;
  /** Why nothing came of it; null where something did. */
  readonly trouble: string | null;
}

const nothing: Offsets = { made: [], working: false, trouble: null };

/** Keeps offsets of items worked out, off the page's thread; a new wish gives the one before it up. */
export function useOffsets(sources: readonly Item[], wish: OffsetWish): Offsets {
  const [offsets, setOffsets] = useState(nothing);
  useEffect(() => {
    const wished = wishedOffsets(sources, wish);
    if (wished.length === 0) {
      setOffsets(nothing);
      return;
    }
    let done = false;
    let given = false;
    const work = async () => {
      try {
        const paths = await Promise.race([
          Promise.all(wished.map(({ sources: of, settings }) => fileWorker().offset(of, settings))),
          fileWorkStopped(),
        ]);
        done = true;
        if (given) return;
        const made = (paths ?? []).map((path, i) => ({ ...wished[i], path }));
        setOffsets({ made, working: false, trouble: paths ? null : 'It was stopped. Change a value to try again.' });
      } catch (error) {
        done = true;
        if (!given) setOffsets({ made: [], working: false, trouble: sentenceOf(error) });
      }
    };
    setOffsets(({ made }) => ({ made, working: true, trouble: null }));
    void work();
    return () => {
      given = true;
      if (!done) cancelFileWork();
    };
  }, [sources, wish]);
  return offsets;
}
