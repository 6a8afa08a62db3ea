import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { DayAnswer } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { lazy, Suspense } from 'react';
import { timeOf } from '../stores/dates.ts';
import { formatDuration } from '../ui/figures.ts';
import { t } from '../words/words.ts';
import { type GivenBlock, useDayFocus } from './use-day.ts';

const BlockPanel = lazy(() => import('./block-panel.tsx'));

interface Props {
  readonly block: GivenBlock;
  readonly day: DayAnswer;
  readonly machines: readonly Machine[];
}

/** A job that waits for its machine: dragged, it moves; pressed, it says what to lay for it, and starts. */
export function DayBlockButton({ block, day, machines }: Props) {
  const { jobId, title, seconds, state, isLate, from, until } = block;
  const takes = seconds === null ? t('being timed') : formatDuration(seconds);
  const edge = isLate
    ? 'border-[#FF8A80]'
    : state === 'ready' || state === 'on a machine'
      ? 'border-[#5BC0C9]'
      : 'border-dashed border-[#B9C4C1]';
  return (
    <Popover className="@container h-full">
      <PopoverButton
        draggable
        onDragStart={(event: React.DragEvent) => {
          event.dataTransfer.setData('text/plain', title);
          useDayFocus.setState({ dragged: { id: jobId, title, machineId: block.machineId, state, seconds } });
        }}
        onDragEnd={() => useDayFocus.setState({ dragged: null })}
        title={title}
        className={`block h-full w-full cursor-grab overflow-hidden rounded-md border border-t-[3px] bg-slate-raised px-[min(6px,15%)] text-left hover:brightness-125 ${edge}`}
      >
        <span className="block truncate font-bold @max-[36px]:opacity-0">{title}</span>{' '}
        <span className={`figures block truncate text-[12px] @max-[36px]:opacity-0 ${isLate ? 'text-[#FFB4AC]' : ''}`}>
          {isLate ? t('{{takes}}, late', { takes }) : takes}
        </span>
        <span className="sr-only"> {t('{{from}} to {{until}}', { from: timeOf(from), until: timeOf(until) })}</span>
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 6, padding: 8 }}
        focus
        className="z-30 w-[320px] rounded-xl border border-line bg-paper p-4 text-ink shadow-float"
      >
        {({ close }) => (
          <Suspense>
            <BlockPanel block={block} day={day} machines={machines} close={close} />
          </Suspense>
        )}
      </PopoverPanel>
    </Popover>
  );
}
