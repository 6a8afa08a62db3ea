import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import type { JobCard } from '@lambent/contracts';
import { jobStates } from '@lambent/contracts/job-states';
import type { Machine } from '@lambent/core/machine';
import { Check, ChevronDown } from 'lucide-react';
import type { GivenBlock } from '../day/use-day.ts';
import { t } from '../words/words.ts';
import { dotOf, nameOfShow, sayingOf } from './job-states.ts';
import { useMoveJob } from './use-move-job.ts';

const levels = { plain: 'text-quiet', warns: 'text-warn', blocks: 'text-stop' } as const;

/** Where a job stands, and whom it waits for; pressed, it offers where else. */
export function StateCell(props: { job: JobCard; block: GivenBlock | undefined; machine: Machine | undefined }) {
  const { job, block, machine } = props;
  const move = useMoveJob();
  const { text, level } = sayingOf(job, block && machine ? { ...block, name: machine.name } : undefined);
  return (
    <Menu as="div" className="relative z-10">
      <MenuButton
        aria-label={t('{{title}}: {{state}}', { title: job.title, state: nameOfShow(job.state) })}
        className="flex max-w-full items-center gap-1.5 rounded-lg py-0.5 font-bold hover:text-petrol"
      >
        <span className={`size-2 shrink-0 rounded-full ${dotOf(job.state)}`} aria-hidden />
        <span className="truncate">{nameOfShow(job.state)}</span>
        <ChevronDown size={13} className="shrink-0 text-quiet" aria-hidden />
      </MenuButton>
      <span className={`block truncate pl-3.5 ${levels[level]}`}>{text}</span>
      <MenuItems
        anchor={{ to: 'bottom start', gap: 4, padding: 8 }}
        aria-label={t('Where {{title}} stands', { title: job.title })}
        className="z-30 min-w-48 rounded-xl border border-line bg-paper p-1 shadow-float outline-none"
      >
        {jobStates.map((state) => (
          <MenuItem key={state}>
            <button
              type="button"
              onClick={() => state !== job.state && move(job, state)}
              className="flex h-8 w-full items-center gap-2.5 rounded-lg px-2.5 text-left data-focus:bg-petrol-soft pointer-coarse:h-11"
            >
              <span className={`size-2 shrink-0 rounded-full ${dotOf(state)}`} aria-hidden />
              <span className="flex-1">{nameOfShow(state)}</span>
              {state === job.state && <Check size={14} className="text-petrol" aria-hidden />}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
