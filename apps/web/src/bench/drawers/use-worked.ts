import type { Progress } from '@lambent/core';
import { useEffect, useRef, useState } from 'react';
import { sentenceOf } from '../../api.ts';
import { cancelFileWork, fileWorkStopped } from '../../workers/bench.ts';

export interface Worked<T> {
  /** What was last worked out; of what was asked before while `working`. */
  readonly answer: T | null;
  readonly working: boolean;
  /** How much of it is done, from 0 to 1. */
  readonly share: number;
  /** Why nothing came of it; null where something did. */
  readonly trouble: string | null;
}

/** What is no longer wanted is let finish within this time, so that what is dragged is followed; then it is ended. */
const patienceMs = 300;

/**
 * Keeps something worked out by the file worker: of what is asked while that is busy, the last alone.
 * @param ask the same one for as long as the same is asked; null asks for nothing
 */
export function useWorked<T>(ask: ((progress: Progress) => Promise<T>) | null): Worked<T> {
  const [worked, setWorked] = useState<Worked<T>>({ answer: null, working: false, share: 0, trouble: null });
  const wanted = useRef<typeof ask>(null);
  const busy = useRef(false);
  /** Takes the last patience back. */
  const waiting = useRef<() => void>(() => undefined);
  useEffect(() => {
    wanted.current = ask;
    if (!ask) {
      if (busy.current) cancelFileWork();
      setWorked({ answer: null, working: false, share: 0, trouble: null });
      return;
    }
    setWorked(({ answer }) => ({ answer, working: true, share: 0, trouble: null }));
    if (!busy.current) {
      void workOff();
      return;
    }
    const timer = window.setTimeout(() => {
      if (busy.current && wanted.current === ask) cancelFileWork();
    }, patienceMs);
    const done = () => window.clearTimeout(timer);
    waiting.current = done;
    return done;

    async function workOff() {
      busy.current = true;
      for (let next = wanted.current; next; next = wanted.current === next ? null : wanted.current) {
        waiting.current();
        try {
          const asked = next;
          const progress = (share: number) => {
            if (wanted.current === asked) setWorked((now) => (now.working ? { ...now, share } : now));
          };
          const answer = await Promise.race([next(progress), fileWorkStopped()]);
          if (wanted.current === next) {
            const trouble = answer === null ? 'It was stopped. Change a value to try again.' : null;
            setWorked({ answer, working: false, share: 1, trouble });
          } else if (answer !== null && wanted.current) setWorked({ answer, working: true, share: 0, trouble: null });
        } catch (error) {
          if (wanted.current === next)
            setWorked({ answer: null, working: false, share: 0, trouble: sentenceOf(error) });
        }
      }
      busy.current = false;
    }
  }, [ask]);
  useEffect(
    () => () => {
      wanted.current = null;
      if (busy.current) cancelFileWork();
    },
    [],
  );
  return worked;
}
