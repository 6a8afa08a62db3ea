import type { Progress } from '@lambent/core/geometry';
import { useCallback, useEffect, useRef, useState } from 'react';
import { sentenceOf } from '../../../api.ts';
import { t } from '../../../words/words.ts';

export interface Worked<T> {
  /** What was last worked out; of what was asked before while `working`. */
  readonly answer: T | null;
  readonly working: boolean;
  /** How much of it is done, from 0 to 1. */
  readonly share: number;
  /** Why nothing came of it; null where something did. */
  readonly trouble: string | null;
}

/** Asks for something that takes work; the signal ends it. */
export type Ask<T> = (progress: Progress, signal: AbortSignal) => Promise<T>;

/** What is no longer wanted is let finish within this time, so that what is dragged is followed; then it is ended. */
const patienceMs = 300;

/**
 * Keeps something worked out: of what is asked while that is busy, the last alone.
 * @param ask the same one for as long as the same is asked; null asks for nothing
 * @returns what came of it, and a way to stop it
 */
export function useWorked<T>(ask: Ask<T> | null): Worked<T> & { readonly stop: () => void } {
  const [worked, setWorked] = useState<Worked<T>>({ answer: null, working: false, share: 0, trouble: null });
  const wanted = useRef<typeof ask>(null);
  /** Ends what is under way; null while nothing is. */
  const running = useRef<AbortController | null>(null);
  /** Takes the last patience back. */
  const waiting = useRef<() => void>(() => undefined);
  const stop = useCallback(() => running.current?.abort(), []);
  useEffect(() => {
    wanted.current = ask;
    if (!ask) {
      stop();
      setWorked({ answer: null, working: false, share: 0, trouble: null });
      return;
    }
    setWorked(({ answer }) => ({ answer, working: true, share: 0, trouble: null }));
    if (!running.current) {
      void workOff();
      return;
    }
    const timer = window.setTimeout(() => {
      if (wanted.current === ask) stop();
    }, patienceMs);
    const done = () => window.clearTimeout(timer);
    waiting.current = done;
    return done;

    async function workOff() {
      for (let next = wanted.current; next; next = wanted.current === next ? null : wanted.current) {
        waiting.current();
        const asked = next;
        const turn = new AbortController();
        running.current = turn;
        const progress = (share: number) => {
          if (wanted.current === asked) setWorked((now) => (now.working ? { ...now, share } : now));
        };
        try {
          const answer = await asked(progress, turn.signal);
          if (wanted.current === asked) setWorked({ answer, working: false, share: 1, trouble: null });
          else if (wanted.current) setWorked({ answer, working: true, share: 0, trouble: null });
        } catch (error) {
          const trouble = turn.signal.aborted ? t('It was stopped. Change a value to try again.') : sentenceOf(error);
          if (wanted.current === asked) setWorked({ answer: null, working: false, share: 0, trouble });
        }
      }
      running.current = null;
    }
  }, [ask, stop]);
  useEffect(
    () => () => {
      wanted.current = null;
      stop();
    },
    [stop],
  );
  return { ...worked, stop };
}
