import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { runBefore } from '@lambent/core/document';
import { useMutation } from '@tanstack/react-query';
import { Check, Flame } from 'lucide-react';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { dayAndTimeOf } from '../stores/dates.ts';
import { useLive } from '../stores/live.ts';
import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { useBench } from './context.ts';
import { jobOf, machineOf } from './state/document.ts';
import { isBlocked, isPlanned } from './state/plan.ts';
import { useBurntRuns } from './use-runs.ts';
import { type SaidOfRun, useSend } from './use-send.ts';

/** Sends the run on screen to its machine; where it would spoil its stock, that is said first. */
export function SendButton() {
  const machine = useBench(machineOf);
  const jobId = useBench((state) => state.jobId);
  const blocked = useBench(isBlocked);
  const current = useBench(isPlanned);
  const runs = useBench((state) => jobOf(state).runs);
  const several = runs.length > 1;
  const jobRun = useBench((state) => state.prepared.run);
  const burnt = useBurntRuns();
  const burntAt = burnt.get(jobRun.id);
  const before = runBefore(runs, jobRun);
  const state = useLive((live) => live.machines[machine.id]?.state ?? 'away');
  // What the head does by hand ends where a job is sent.
  const isByHand = useLive((live) => live.machines[machine.id]?.errand != null);
  const makingReady = useLive((live) => live.machines[machine.id]?.makingReady ?? null);
  const navigate = useNavigate();
  const send = useSend();
  const run = useMutation({ mutationFn: (said: SaidOfRun) => send(said) });
  if (blocked) {
    return (
      <Button look="main" className="h-[34px]" onClick={() => navigate(`/jobs/${jobId}/check`, { replace: true })}>
        {t('See what blocks')}
      </Button>
    );
  }
  const idle = (state === 'idle' || isByHand) && makingReady === null;
  if (several && burntAt && idle && !run.isPending) {
    return (
      <SayFirst
        words={t('{{name}} is burnt', { name: jobRun.name })}
        icon={<Check size={16} className="shrink-0 text-settled" aria-hidden />}
        button={t('Burn it again')}
        send={() => run.mutate({ again: true, early: true })}
      >
        {t(
          '{{name}} was burnt on {{burntAt}}. Again, it burns over what is there: lay fresh stock first, or choose another run in the burn strip.',
          { name: jobRun.name, burntAt: dayAndTimeOf(burntAt) },
        )}
      </SayFirst>
    );
  }
  if (before && !burnt.has(before.id) && idle && !run.isPending) {
    return (
      <SayFirst
        words={t('{{name}} first', { name: before.name })}
        button={t('Send {{name}} all the same', { name: jobRun.name })}
        send={() => run.mutate({ early: true })}
      >
        {t(
          '{{name}} needs the stock as {{before}} leaves it, and {{before}} was not burnt yet. Burn {{before}} first, or send {{name}} if such stock lies there already.',
          { name: jobRun.name, before: before.name },
        )}
      </SayFirst>
    );
  }
  const what = several ? t('Send {{name}}', { name: jobRun.name }) : t('Send to {{name}}', { name: machine.name });
  return (
    <Button
      look="main"
      className="h-[34px] max-w-[220px]"
      disabled={!idle || !current || run.isPending}
      title={
        !current
          ? t('The plan is being worked out')
          : idle
            ? t('{{name}} to {{name2}}', { name: jobRun.name, name2: machine.name })
            : makingReady
              ? t('“{{makingReady}}” is made ready for {{name}}', { makingReady, name: machine.name })
              : t('{{name}} is {{state}}', { name: machine.name, state })
      }
      onClick={() => run.mutate({})}
    >
      <Flame size={16} className="shrink-0" aria-hidden />
      <span className="truncate">
        {run.isPending || makingReady
          ? t('Sending…')
          : idle
            ? what
            : t('{{name}} is {{state}}', { name: machine.name, state })}
      </span>
    </Button>
  );
}

/** What a run needs to have said before it is sent, for it would else spoil its stock. */
function SayFirst(props: { words: string; icon?: ReactNode; button: string; send: () => void; children: ReactNode }) {
  const { words, icon, button, send, children } = props;
  return (
    <Popover className="relative">
      <PopoverButton as={Button} className="h-[34px] max-w-[220px]">
        {icon}
        <span className="truncate">{words}</span>
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom end', gap: 8 }}
        className="z-30 w-[300px] rounded-xl border border-line bg-paper p-3.5 shadow-float outline-none"
      >
        {({ close }) => (
          <>
            <p className="mb-2.5">{children}</p>
            <Button
              look="danger"
              onClick={() => {
                close();
                send();
              }}
            >
              {button}
            </Button>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}
