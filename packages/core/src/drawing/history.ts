/** A state with the way back and forth. Each step bears the name of the edit that made it. */
export interface History<T> {
  readonly past: readonly Step<T>[];
  readonly present: T;
  readonly future: readonly Step<T>[];
}

interface Step<T> {
  readonly name: string;
  /** For a past step the state before the edit, for a future one the state after it. */
  readonly state: T;
}

const mostSteps = 500;

export function startHistory<T>(present: T): History<T> {
  return { past: [], present, future: [] };
}

/** Adds an edit. What had been undone is forgotten; an edit that changes nothing is no edit. */
export function record<T>(history: History<T>, name: string, present: T): History<T> {
  if (present === history.present) return history;
  const past = [...history.past, { name, state: history.present }].slice(-mostSteps);
  return { past, present, future: [] };
}

/** The present as it should be: no edit of its own, undone with the one before it. */
export function amend<T>(history: History<T>, present: T): History<T> {
  return present === history.present ? history : { ...history, present };
}

export function undo<T>(history: History<T>): History<T> {
  const step = history.past.at(-1);
  if (!step) return history;
  return {
    past: history.past.slice(0, -1),
    present: step.state,
    future: [{ name: step.name, state: history.present }, ...history.future],
  };
}

export function redo<T>(history: History<T>): History<T> {
  const [step, ...future] = history.future;
  if (!step) return history;
  return { past: [...history.past, { name: step.name, state: history.present }], present: step.state, future };
}
