import { useEffect, useState } from 'react';
import { sentenceOf } from '../../api.ts';
import { cancelFileWork, fileWorkStopped } from '../../workers/bench.ts';

export interface Worked<T> {
  /** What was last worked out; of what was asked before while `working`. */
  readonly answer: T | null;
  readonly working: boolean;
  /** Why nothing came of it; null where something did. */
  readonly trouble: string | null;
}

/**
 * Keeps something worked out by the file worker; what is asked next gives the one before it up.
 * @param ask the same one for as long as the same is asked; null asks for nothing
 */
export function useWorked<T>(ask: (() => Promise<T>) | null): Worked<T> {
  const [worked, setWorked] = useState<Worked<T>>({ answer: null, working: false, trouble: null });
  useEffect(() => {
    if (!ask) {
      setWorked({ answer: null, working: false, trouble: null });
      return;
    }
    let done = false;
    let given = false;
    const work = async () => {
      try {
        const answer = await Promise.race([ask(), fileWorkStopped()]);
        done = true;
        if (given) return;
        const trouble = answer === null ? 'It was stopped. Change a value to try again.' : null;
        setWorked({ answer, working: false, trouble });
      } catch (error) {
        done = true;
        if (!given) setWorked({ answer: null, working: false, trouble: sentenceOf(error) });
      }
    };
    setWorked(({ answer }) => ({ answer, working: true, trouble: null }));
    void work();
    return () => {
      given = true;
      if (!done) cancelFileWork();
    };
  }, [ask]);
  return worked;
}
