import { pathOf } from '@lambent/core/document';
import { arcsBack, joinEnds, keepWithin, simplifyItems } from '@lambent/core/edits';
import { subpathsOf } from '@lambent/core/geometry';
import { toast } from 'sonner';
import { counted } from '../ui/counted.ts';
import { t } from '../words/words.ts';
import type { BenchActions } from './state/bench-state.ts';
import { jobOf } from './state/document.ts';
import { selectedItems } from './state/hand.ts';

/** Keeps what of the selection lies inside the foremost outline of it, or outside; that outline stays. */
export function keep(actions: BenchActions, side: 'inside' | 'outside'): void {
  const chosen = selectedItems(actions.get());
  const frame = chosen[chosen.length - 1];
  if (!frame || ![...subpathsOf(pathOf(frame))].some(({ closed }) => closed)) {
    toast.message(t('The outline in front must be a closed one.'));
    return;
  }
  const others = new Set(chosen.slice(0, -1).map(({ id }) => id));
  actions.edit(t('keep what is {{side}}', { side }), (job) => keepWithin(job, others, pathOf(frame), side));
}

/** Joins the ends of the selection, and says what came of it. */
export function join(actions: BenchActions, tolerance: number): string {
  const { selection } = actions.get();
  const { job, report } = joinEnds(jobOf(actions.get()), selection, tolerance);
  actions.edit(t('join ends'), () => job);
  const { joined, widest, open } = report;
  const gaps = open.filter(({ gap }) => Number.isFinite(gap)).map(({ gap }) => gap);
  const left =
    open.length === 0
      ? t('No end is open.')
      : t('{{open}} ends stay open{{gaps}}.', {
          open: open.length,
          gaps: gaps.length > 0 ? t('; the nearest gap is {{min}} mm', { min: Math.min(...gaps).toFixed(2) }) : '',
        });
  return joined === 0
    ? t('No ends lie that near. {{left}}', { left })
    : t('{{gaps}} closed, the widest {{widest}} mm. {{left}}', {
        gaps: counted(joined, 'gap'),
        widest: widest.toFixed(3),
        left,
      });
}

/** Makes do with fewer points. @param tolerance in mm @returns what came of it, in words */
export function simplify(actions: BenchActions, tolerance: number): string {
  const { selection } = actions.get();
  const { job, before, after } = simplifyItems(jobOf(actions.get()), selection, tolerance);
  actions.edit(t('simplify to {{tolerance}} mm', { tolerance }), () => job);
  return after < before
    ? t('{{before}} points before, {{after}} now.', { before, after })
    : t('It has no fewer points within {{tolerance}} mm: {{before}}.', { tolerance, before });
}

/** Makes arcs of what lies on circles, and says how many. */
export function roundAgain(actions: BenchActions, tolerance: number): string {
  const { selection } = actions.get();
  const { job, found } = arcsBack(jobOf(actions.get()), selection, tolerance);
  actions.edit(t('find arcs'), () => job);
  return found === 0
    ? t('Nothing there lies on a circle within {{tolerance}} mm.', { tolerance })
    : t('{{arcs}} found.', { arcs: counted(found, 'arc') });
}
