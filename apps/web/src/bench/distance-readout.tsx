import { setMark } from '@lambent/core/edits';
import { countsDown } from '@lambent/core/machine';
import { X } from 'lucide-react';
import { IconButton } from '../ui/button.tsx';
import { fixed, formatLength } from '../ui/figures.ts';
import { t } from '../words/words.ts';
import { useBench, useBenchActions } from './context.ts';
import { jobOf, machineOf, unitOf } from './state/document.ts';
import { angleTo } from './tools/recipes.ts';

/** How far the pointer is from the last point, and which way; M sets that point. */
export function DistanceReadout() {
  const actions = useBenchActions();
  const last = useBench((state) => state.lastPoint);
  const pointer = useBench((state) => state.pointer);
  const unit = useBench(unitOf);
  const down = countsDown(useBench(machineOf));
  if (!last || !pointer) return null;
  const [dx, dy] = [pointer.x - last.x, pointer.y - last.y];
  const say = (mm: number) => formatLength(mm, unit, { bare: true, fixed: unit === 'mm' });
  return (
    <div className="figures absolute left-[76px] top-8 z-10 flex h-8 items-center gap-3 rounded-lg border border-line bg-paper/95 px-2.5 text-[12px]">
      <span>{t('Δx {{dx}}', { dx: say(dx) })}</span>
      <span>{t('Δy {{dy}}', { dy: say(dy * down) })}</span>
      <span>
        {say(Math.hypot(dx, dy))} {unit}
      </span>
      <span>{fixed(angleTo(last, pointer), 1)}°</span>
      <IconButton
        label={t('Forget the last point')}
        className="-mr-1.5 size-6"
        onClick={() => {
          actions.measureFrom(null);
          if (jobOf(actions.get()).mark) actions.edit(t('take the mark away'), (job) => setMark(job, null));
        }}
      >
        <X size={13} aria-hidden />
      </IconButton>
    </div>
  );
}
