import type { GuideLine } from '@lambent/core/document';
import { removeGuide, setGuide } from '@lambent/core/edits';
import type { Point } from '@lambent/core/geometry';
import { snapPoint } from '@lambent/core/picking';
import { t } from '../../words/words.ts';
import type { BenchActions, BenchState } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import { reachOnBed } from '../state/hand.ts';
import { rounded, snapField, snapReach } from './snapping.ts';

const reachPx = 5;

/** The guide line under a point of the bed, if one is near. */
export function guideUnder(state: BenchState, { x, y }: Point): GuideLine | null {
  const reach = reachOnBed(state, reachPx);
  return jobOf(state).guides.find(({ axis, at }) => Math.abs((axis === 'x' ? x : y) - at) <= reach) ?? null;
}

/** A guide line where the pointer takes it: caught by what is near, else at a plain number. */
export function movedGuide(
  state: BenchState,
  guide: GuideLine,
  { free, alt }: { readonly free: Point; readonly alt: boolean },
): GuideLine {
  const field = snapField(state);
  const others = { ...field, guides: field.guides.filter(({ id }) => id !== guide.id) };
  const snap = state.snapping.mode !== 'none' && !alt ? snapPoint(others, free, snapReach(state)) : null;
  const place = snap ?? rounded(free, state.view.scale);
  return { ...guide, at: place[guide.axis] };
}

/** Puts the guide line that is on its way down; one that is out of view, over a ruler, is taken away. */
export function dropGuide(actions: BenchActions): void {
  const state = actions.get();
  const { guideDraft, view, viewSize } = state;
  actions.endDrag();
  if (!guideDraft) return;
  const known = jobOf(state).guides.some(({ id }) => id === guideDraft.id);
  const [offset, size] = guideDraft.axis === 'x' ? [view.x, viewSize.width] : [view.y, viewSize.height];
  const place = guideDraft.at * view.scale + offset;
  if (place >= 0 && place <= size)
    actions.edit(known ? t('move a guide line') : t('pull a guide line'), (job) => setGuide(job, guideDraft));
  else if (known) actions.edit(t('take a guide line away'), (job) => removeGuide(job, guideDraft.id));
}
