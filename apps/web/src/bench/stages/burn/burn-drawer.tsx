import { stepTitle } from '@lambent/core/plan';
import { formatClock } from '@lambent/core/units';
import { useLive } from '../../../stores/live.ts';
import { fixed, formatDuration } from '../../../ui/figures.ts';
import { said, t } from '../../../words/words.ts';
import { cardStepsTitle, shownSteps } from '../../card/card-steps.ts';
import { useBench } from '../../context.ts';
import { machineOf } from '../../state/document.ts';
import { planOf } from '../../state/plan.ts';
import { useShownRun } from '../../use-shown-run.ts';
import { Drawer, Part } from '../drawer.tsx';
import { BeforeSend } from './before-send.tsx';
import { Fact } from './fact.tsx';
import { JobSheetPart } from './job-sheet-part.tsx';
import { MachinePart } from './machine-part.tsx';
import { PiecesPart } from './pieces-part.tsx';
import { HandPart } from './placing/hand-part.tsx';
import { WherePart } from './placing/where-part.tsx';
import { PreviewPart } from './preview-part.tsx';
import { PricePart } from './price-part.tsx';
import { RecordPart } from './record/record-part.tsx';
import { RowAgain } from './row-again.tsx';
import { TakeOut } from './take-out.tsx';
import { WhatToLay } from './what-to-lay.tsx';

/** See it, time it, run it. */
export function BurnDrawer() {
  const plan = useBench(planOf);
  const run = useShownRun();
  const machine = useBench(machineOf);
  const state = useLive((live) => live.machines[machine.id]);
  const isBurning = state?.runId != null;
  return (
    <Drawer title={t('Burn')} aside={plan ? formatDuration(plan.timeS) : undefined}>
      <MachinePart machine={machine} state={state} />
      {!isBurning && (
        <>
          <WherePart />
          {state && state.state !== 'away' && <HandPart machine={machine} state={state} />}
          <WhatToLay />
          <BeforeSend />
          <RowAgain />
        </>
      )}
      {plan && plan.steps.length > 0 && !run && <PreviewPart timeS={plan.timeS - plan.backS} />}
      {plan && plan.steps.length > 0 && (
        <Part title={t('Time')}>
          <dl className="figures flex flex-col gap-1 text-[12.5px]">
            {shownSteps(plan.steps).map((shown) =>
              shown.kind === 'card' ? (
                <Fact key={shown.steps[0].id} name={cardStepsTitle(shown.steps)} value={formatClock(shown.timeS)} />
              ) : (
                <Fact key={shown.step.id} name={said(stepTitle(shown.step))} value={formatClock(shown.step.timeS)} />
              ),
            )}
            <Fact name={t('Back to rest')} value={formatClock(plan.backS)} />
            <Fact name={t('In all')} value={formatClock(plan.timeS)} isSum />
            <Fact name={t('Moved unlit')} value={`${fixed(plan.travelMm / 1000, 2)} m`} />
          </dl>
        </Part>
      )}
      <PiecesPart />
      <PricePart />
      <JobSheetPart />
      <TakeOut />
      <RecordPart />
    </Drawer>
  );
}
