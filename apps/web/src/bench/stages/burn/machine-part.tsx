import type { MachineState } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { stepTitle } from '@lambent/core/plan';
import { formatClock } from '@lambent/core/units';
import { isAboutToRun, mayBeStopped } from '../../../hand/hand-state.ts';
import { StopButton } from '../../../hand/stop-button.tsx';
import { useHand } from '../../../hand/use-hand.ts';
import { useLive } from '../../../stores/live.ts';
import { Button } from '../../../ui/button.tsx';
import { stateLook } from '../../../ui/machine-state.ts';
import { PressButton } from '../../../ui/press-button.tsx';
import { said, t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { planOf } from '../../state/plan.ts';
import { useShownRun } from '../../use-shown-run.ts';
import { Part } from '../drawer.tsx';

/** The machine as it is, and what can be asked of it while it burns. */
export function MachinePart({ machine, state }: { machine: Machine; state: MachineState | undefined }) {
  const hand = useHand(machine.id);
  const run = useShownRun();
  const timeS = useBench((bench) => planOf(bench)?.timeS ?? 0);
  const look = stateLook(state?.state ?? 'away');
  // What it burns may be of another job, or of another version of this one.
  const other = useLive((live) => (state?.runId && !run ? live.runs[state.runId] : undefined));
  return (
    <Part title={machine.name}>
      <div className="rounded-[10px] border border-line bg-raised p-3" data-testid="machine-part">
        <p className="flex items-center gap-2 font-semibold">
          <span className={`size-2.5 rounded-full ${look.dot}`} aria-hidden />
          {state ? (doingInWords(state) ?? look.text) : look.text}
          {run && (
            <span className="figures ml-auto text-[12.5px] font-normal">
              {t('{{timeS}} left', { timeS: formatClock(Math.max(0, timeS - run.atS)) })}
            </span>
          )}
        </p>
        {run && <NowBurning atS={run.atS} />}
        {other && (
          <p className="mt-1 text-[12.5px]">
            {t('It burns “{{jobTitle}}”, version {{version}}.', { jobTitle: other.jobTitle, version: other.version })}
          </p>
        )}
        {state?.reason && <p className="mt-1 text-warn">{said(state.reason)}</p>}
        {state?.state === 'alarm' && (
          <div className="mt-2.5 flex flex-wrap gap-2">
            <Button look="main" onClick={() => hand.tell('clear')}>
              {t('Clear alarm')}
            </Button>
            <Button onClick={() => hand.tell('home')}>{t('Home')}</Button>
          </div>
        )}
        {state && mayBeStopped(state) && (
          <div className="mt-2.5 flex flex-wrap gap-2">
            <StopButton state={state}>
              {state.state === 'held' && state.lid !== 'open' && (
                <Button look="main" onClick={() => hand.tell('resume')}>
                  {t('Resume')}
                </Button>
              )}
              {state.state === 'running' && state.errand === null && (
                <PressButton look="main" act={() => hand.tell('hold')}>
                  {t('Hold')}
                </PressButton>
              )}
            </StopButton>
          </div>
        )}
      </div>
    </Part>
  );
}

/** What it does besides burning, in words; null where that is no more than its state. */
function doingInWords(machineState: MachineState): string | null {
  const { errand, state, makingReady } = machineState;
  if (isAboutToRun(machineState))
    return makingReady ? t('“{{makingReady}}” is made ready', { makingReady }) : t('About to run');
  if (!errand) return null;
  if (state === 'held') return t('Held, unlit');
  if (errand.kind === 'walk') return t('Walks the bounds, unlit');
  if (errand.kind === 'timing') return t('Runs its timing card, unlit');
  return errand.kind === 'move' ? t('Moves, unlit') : t('Does it by hand, unlit');
}

/** The step that burns now, and how much of it is done. */
function NowBurning({ atS }: { atS: number }) {
  const plan = useBench(planOf);
  if (!plan) return null;
  let begins = 0;
  for (const step of plan.steps) {
    if (atS < begins + step.timeS) {
      const share = Math.min(1, Math.max(0, (atS - begins) / step.timeS));
      return (
        <p className="mt-1 flex gap-2 text-[12.5px]" data-testid="now-burning">
          <span className="min-w-0 truncate">{said(stepTitle(step))}</span>
          <span className="figures ml-auto shrink-0">{Math.floor(100 * share)} %</span>
        </p>
      );
    }
    begins += step.timeS;
  }
  return <p className="mt-1 text-[12.5px]">{t('The head goes back to rest.')}</p>;
}
