import type { Drawing } from '../document/item.ts';
import { verbsIn } from '../document/shapes.ts';

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
  /** What it takes to keep it, beside what the state after it holds anyway. */
  readonly weight: number;
}

const mostSteps = 500;
/** Steps that weigh more than this together are forgotten, the oldest first; a few stay whatever they weigh. */
const mostWeight = 1_000_000;
const fewestSteps = 5;

/** A history of nothing but what is. */
export function startHistory<T>(present: T): History<T> {
  return { past: [], present, future: [] };
}

/** Adds an edit. What had been undone is forgotten; an edit that changes nothing is no edit. */
export function record<T>(history: History<T>, name: string, present: T, weight = 1): History<T> {
  if (present === history.present) return history;
  const past = [...history.past, { name, state: history.present, weight }];
  return { past: past.slice(firstKept(past)), present, future: [] };
}

function firstKept(past: readonly Step<unknown>[]): number {
  const fewest = Math.max(0, past.length - fewestSteps);
  let weight = 0;
  for (let i = past.length - 1; i >= 0; i--) {
    weight += past[i].weight;
    if (weight > mostWeight || past.length - i > mostSteps) return Math.min(i + 1, fewest);
  }
  return 0;
}

/**
 * A history with the steps nearest to the present: those that can be redone, then those that can be undone.
 * @param heaviest what they weigh together at most.
 * @param steps how many there are at most.
 */
export function lastSteps<T>({ past, present, future }: History<T>, heaviest: number, steps = mostSteps): History<T> {
  const ahead = within(future, heaviest, steps);
  const rest = heaviest - ahead.reduce((sum, { weight }) => sum + weight, 0);
  return { past: within(past.toReversed(), rest, steps - ahead.length).toReversed(), present, future: ahead };
}

/** The first steps that are no more, and weigh no more together, than is said. */
function within<T>(steps: readonly Step<T>[], heaviest: number, most: number): readonly Step<T>[] {
  let weight = 0;
  const last = steps.findIndex((step, i) => {
    weight += step.weight;
    return weight > heaviest || i >= most;
  });
  return last < 0 ? steps : steps.slice(0, last);
}

/** How much an edit of a drawing weighs: the items that it changed, and the lines and curves that it drew anew. */
export function weightOfEdit(before: Drawing, after: Drawing): number {
  // Most items stand where they stood: only for the others all are looked through.
  const moved = after.items.filter((item, i) => item.shape !== before.items[i]?.shape);
  let weight = 1 + after.items.filter((item, i) => item !== before.items[i]).length - moved.length;
  if (moved.length === 0) return weight;
  const known = new Set(before.items);
  const shapes = new Set(before.items.map(({ shape }) => shape));
  for (const item of moved) {
    if (!known.has(item)) weight += shapes.has(item.shape) ? 1 : 1 + verbsIn(item.shape) / verbsToItem;
  }
  return weight;
}

/** As many lines and curves weigh as much as an item. */
const verbsToItem = 10;

/** The present as it should be: no edit of its own, undone with the one before it. */
export function amend<T>(history: History<T>, present: T): History<T> {
  return present === history.present ? history : { ...history, present };
}

/** Goes a step back; the same history where there is none. */
export function undo<T>(history: History<T>): History<T> {
  const step = history.past.at(-1);
  if (!step) return history;
  return {
    past: history.past.slice(0, -1),
    present: step.state,
    future: [{ ...step, state: history.present }, ...history.future],
  };
}

/** Goes a step forward again; the same history where there is none. */
export function redo<T>(history: History<T>): History<T> {
  const [step, ...future] = history.future;
  if (!step) return history;
  return { past: [...history.past, { ...step, state: history.present }], present: step.state, future };
}
