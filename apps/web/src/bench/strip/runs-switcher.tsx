import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Check, FlipVertical2 } from 'lucide-react';
import { t } from '../../words/words.ts';
import { useBench } from '../context.ts';
import { laterPart } from '../stages/later-drawer.tsx';
import { jobOf } from '../state/document.ts';
import { useBurntRuns } from '../use-runs.ts';

const RunsPanel = laterPart(async () => (await import('./runs-panel.tsx')).RunsPanel);

/** The run that is looked at; opens on all of the job's runs, what burns in which, and how each lies. */
export function RunsSwitcher() {
  const runs = useBench((state) => jobOf(state).runs);
  const run = useBench((state) => state.prepared.run);
  const burnt = useBurntRuns();
  const several = runs.length > 1;
  return (
    <Popover className="flex">
      <PopoverButton
        aria-label={t('Runs: {{name}}', { name: run.name })}
        title={t('The trips of the machine, and what burns in each')}
        className="flex max-w-[104px] items-center gap-1 rounded-md border border-slate-line px-1.5 py-0.5 text-[12px] text-[#C9D5D2] hover:border-flame hover:text-white"
      >
        {run.mirrored && <FlipVertical2 size={12} className="shrink-0 text-flame" aria-label={t('mirrored')} />}
        {several && burnt.has(run.id) && <Check size={12} className="shrink-0 text-flame" aria-label={t('burnt')} />}
        <span className="truncate">{run.name}</span>
        {several && (
          <span className="figures shrink-0">
            {runs.indexOf(run) + 1}/{runs.length}
          </span>
        )}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'top start', gap: 12, padding: 8 }}
        className="z-30 w-[560px] rounded-xl border border-line bg-paper p-3.5 text-ink shadow-float outline-none"
      >
        <RunsPanel burnt={burnt} />
      </PopoverPanel>
    </Popover>
  );
}
