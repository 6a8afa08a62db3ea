import { groupsAround } from '@lambent/core/document';
import type { BenchActions } from './state/bench-state.ts';
import { jobOf } from './state/document.ts';

/** Closes the group that is open, and selects it as a whole. @returns whether one was */
export function closeGroup(actions: BenchActions): boolean {
  const { openGroup } = actions.get();
  const { drawing } = jobOf(actions.get());
  const group = drawing.groups.find(({ id }) => id === openGroup);
  if (!group) return false;
  actions.openGroup(group.parentId);
  const inside = drawing.items.filter((item) => groupsAround(drawing, item).includes(group));
  actions.select(inside.map(({ id }) => id));
  return true;
}
