import { NavLink } from 'react-router';
import { t } from '../words/words.ts';
import { useBench } from './context.ts';
import { type Stage, type Standing, stageNames } from './stages/stage.ts';
import { stages } from './stages/stages.ts';
import { useBurnt } from './use-runs.ts';

/** The stages of the work, in its order, joined by a thread. */
export function StageRail() {
  const jobId = useBench((state) => state.jobId);
  return (
    <nav
      aria-label={t('Stages')}
      className="relative flex w-[86px] shrink-0 flex-col items-center gap-3 overflow-y-auto border-r border-line bg-paper pt-4 max-lg:w-14 pointer-coarse:gap-1 low:gap-0 low:pt-1"
    >
      <div
        className="absolute bottom-auto left-1/2 top-8 h-[460px] w-0.5 -translate-x-1/2 bg-line low:hidden"
        aria-hidden
      />
      {stageNames.map((stage, i) => (
        <StageLink key={stage} jobId={jobId} stage={stage} number={i + 1} />
      ))}
    </nav>
  );
}

function StageLink({ jobId, stage, number }: { jobId: string; stage: Stage; number: number }) {
  const { text, icon: Icon, standing } = stages[stage];
  const burnt = useBurnt();
  const found = useBench((state) => standing(state).kind);
  const kind = stage === 'burn' && burnt ? 'settled' : found;
  const count = useBench((state) => countOf(standing(state)));
  const grave = useBench((state) => isGrave(standing(state)));
  const said =
    kind === 'wants'
      ? t(count === 1 ? '1 wants attention' : '{{count}} want attention', { count })
      : kind === 'settled'
        ? t('settled')
        : t('untouched');
  return (
    <NavLink
      to={`/jobs/${jobId}/${stage}`}
      replace
      title={`${text} (${number})`}
      aria-label={`${text}, ${said}`}
      className="group relative z-10 flex w-16 shrink-0 flex-col items-center gap-1 bg-paper py-0.5 text-ink aria-[current=page]:font-bold aria-[current=page]:text-petrol"
    >
      <span className="relative flex size-10 items-center justify-center rounded-xl low:size-8 border border-line bg-raised group-hover:border-petrol group-aria-[current=page]:border-petrol group-aria-[current=page]:bg-petrol group-aria-[current=page]:text-on-petrol">
        <Icon size={20} strokeWidth={1.75} aria-hidden />
        {kind === 'wants' ? (
          <span
            data-count={count}
            className={`figures after:content-[attr(data-count)] absolute -right-2 -top-2 flex h-[18px] min-w-[18px] items-center justify-center rounded-full px-1 text-[11px] font-bold text-white ring-2 ring-paper ${grave ? 'bg-[#B3261E]' : 'bg-[#A35F00]'}`}
          />
        ) : (
          <span
            className={`absolute -right-1 -top-1 size-2.5 rounded-full ring-2 ring-paper ${kind === 'settled' ? 'bg-settled' : 'bg-line'}`}
          />
        )}
      </span>
      <span className="text-[12.5px] max-lg:sr-only low:sr-only">{text}</span>
    </NavLink>
  );
}

function countOf(state: Standing): number {
  return state.kind === 'wants' ? state.count : 0;
}

function isGrave(state: Standing): boolean {
  return state.kind === 'wants' && state.grave;
}
