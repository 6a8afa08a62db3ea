import type { BuiltThing } from '@lambent/core/document';
import type { BenchState } from '../../../state/bench-state.ts';
import { jobOf } from '../../../state/document.ts';

/** What was built that the selection is of; null where it is of nothing, or of something else as well. */
export function selectedThing(state: BenchState): BuiltThing | null {
  const { built, drawing } = jobOf(state);
  if (built.length === 0 || state.selection.size === 0) return null;
  const selected = drawing.items.filter(({ id }) => state.selection.has(id));
  const thingId = selected[0]?.part?.thingId;
  if (!selected.every(({ part }) => part?.thingId === thingId)) return null;
  return built.find(({ id }) => id === thingId) ?? null;
}
