import { pathOf } from '@lambent/core/document';
import { arcsBack, joinEnds, keepWithin, simplifyItems } from '@lambent/core/edits';
import { subpathsOf } from '@lambent/core/geometry';
import { toast } from 'sonner';
import type { BenchActions } from './state/bench-state.ts';
import { jobOf } from './state/document.ts';
import { selectedItems } from './state/hand.ts';

/** Keeps what of the selection lies inside the foremost outline of it, or outside; that outline stays. */
export function keep(actions: BenchActions, side: 'inside' | 'outside'): void {
  const chosen = selectedItems(actions.get());
  const frame = chosen[chosen.length - 1];
  if (!frame || ![...subpathsOf(pathOf(frame))].some(({ closed }) => closed)) {
    toast.message('The outline in front must be a closed one.');
    return;
  }
  const others = new Set(chosen.slice(0, -1).map(({ id }) => id));
  actions.edit(`keep what is ${side}`, (job) => keepWithin(job, others, pathOf(frame), side));
}

/** Joins the ends of the selection, and says what came of it. */
export function join(actions: BenchActions, tolerance: number): string {
  const { selection } = actions.get();
  const { job, report } = joinEnds(jobOf(actions.get()), selection, tolerance);
  actions.edit('join ends', () => job);
  const { joined, widest, open } = report;
  const gaps = open.filter(({ gap }) => Number.isFinite(gap)).map(({ gap }) => gap);
  const left =
    open.length === 0
      ? 'No end is open.'
      : `${open.length} ends stay open${gaps.length > 0 ? `; the nearest gap is ${Math.min(...gaps).toFixed(2)} mm` : ''}.`;
  return joined === 0
    ? `No ends lie that near. ${left}`
    : `${joined} ${joined === 1 ? 'gap' : 'gaps'} closed, the widest ${widest.toFixed(3)} mm. ${left}`;
}

/** Makes do with fewer points. @param tolerance in mm @returns what came of it, in words */
export function simplify(actions: BenchActions, tolerance: number): string {
  const { selection } = actions.get();
  const { job, before, after } = simplifyItems(jobOf(actions.get()), selection, tolerance);
  actions.edit(`simplify to ${tolerance} mm`, () => job);
  return after < before
    ? `${before} points before, ${after} now.`
    : `It has no fewer points within ${tolerance} mm: ${before}.`;
}

/** Makes arcs of what lies on circles, and says how many. */
export function roundAgain(actions: BenchActions, tolerance: number): string {
  const { selection } = actions.get();
  const { job, found } = arcsBack(jobOf(actions.get()), selection, tolerance);
  actions.edit('find arcs', () => job);
  return found === 0
    ? `Nothing there lies on a circle within ${tolerance} mm.`
    : `${found} ${found === 1 ? 'arc' : 'arcs'} found.`;
}
