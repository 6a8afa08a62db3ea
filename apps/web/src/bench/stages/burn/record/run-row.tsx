import type { RunAnswer } from '@lambent/contracts';
import { formatClock } from '@lambent/core/units';
import { lazy, Suspense, useState } from 'react';
import { toast } from 'sonner';
import { sentenceOf } from '../../../../api.ts';
import { dayAndTimeOf } from '../../../../stores/dates.ts';
import { useLive } from '../../../../stores/live.ts';
import { Button } from '../../../../ui/button.tsx';
import { said, t } from '../../../../words/words.ts';
import { openJob } from '../../../../workers/work.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { jobOf } from '../../../state/document.ts';
import { BurnAgain } from './burn-again.tsx';
import { TakenSheets } from './taken-sheets.tsx';

const BurntBy = lazy(() => import('./burnt-by.tsx'));
const GoingOn = lazy(() => import('./going-on.tsx'));

const runInk: Record<RunAnswer['status'], string> = {
  running: 'text-ink',
  held: 'text-warn',
  done: 'text-[#2E7A4C]',
  stopped: 'text-warn',
  refused: 'text-stop',
  'broken off': 'text-stop',
};

const link = 'text-left text-[12px] font-semibold text-petrol underline';

/** One run on record: what it was, how it came out, and what can be done with it. */
export function RunRow({ run }: { run: RunAnswer }) {
  const actions = useBenchActions();
  const several = useBench((state) => jobOf(state).runs.length > 1);
  const pictured = useBench((state) => state.pictured === run.id);
  const current = useBench((state) => state.stored.version);
  const name = useBench((state) => state.shop.machines.find(({ id }) => id === run.machineId)?.name ?? run.machineId);
  const isFree = useLive((live) => live.machines[run.machineId]?.state === 'idle');
  const [open, setOpen] = useState<'basis' | 'going on' | null>(null);
  const isOver = run.endedAt !== null;
  const openVersion = async () => {
    try {
      const { document } = await openJob(run.jobId, run.version);
      actions.edit(t('back to version {{version}}', { version: run.version }), () => document);
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  };
  return (
    <li
      className="flex flex-col gap-1 rounded-[10px] border border-line bg-raised px-3 py-2"
      data-testid="run-row"
      data-status={run.status}
    >
      <p className="flex justify-between gap-2">
        <span className={`font-semibold ${runInk[run.status]}`}>
          {said(run.status)}
          {run.fromLine !== null && (
            <span className="font-normal text-quiet">
              {t(', from line {{fromLine}} on', { fromLine: run.fromLine })}
            </span>
          )}
        </span>
        <span className="figures text-[12px] text-quiet">{dayAndTimeOf(run.startedAt)}</span>
      </p>
      <p className="text-[12px] text-quiet">
        {several && `${run.jobRunName}, `}
        {name}, {run.by && `${run.by}, `}
        {run.version === current ? (
          t('version {{version}}', { version: run.version })
        ) : (
          <button
            type="button"
            className={link}
            onClick={() => void openVersion()}
            title={t('Shows the job as it was')}
          >
            {t('version {{version}}', { version: run.version })}
          </button>
        )}
        {t(', planned {{plannedS}}', { plannedS: formatClock(run.plannedS) })}
        {isOver && t(', took {{machineS}}', { machineS: formatClock(run.machineS) })}
      </p>
      {run.reason && (
        <p className="text-[12px]">
          {t('{{reason}}, at line {{doneLine}} of {{lines}}', {
            reason: said(run.reason),
            doneLine: run.doneLine,
            lines: run.lines,
          })}
        </p>
      )}
      <p className="flex flex-wrap gap-x-3">
        {isOver && (
          <button
            type="button"
            aria-pressed={pictured}
            onClick={() => actions.showPictureOf(pictured ? null : run.id)}
            className={link}
          >
            {pictured && t('leave ')}
            {run.hasPicture ? t('how it came out') : t('what it burnt')}
          </button>
        )}
        <button
          type="button"
          aria-expanded={open === 'basis'}
          onClick={() => setOpen(open === 'basis' ? null : 'basis')}
          className={link}
        >
          {t('order and settings')}
        </button>
        <a href={`/api/runs/${run.id}/program.gcode`} download className={link}>
          {t('the program that was sent')}
        </a>
      </p>
      <Suspense>
        {open === 'basis' && <BurntBy run={run} />}
        {open === 'going on' && <GoingOn run={run} leave={() => setOpen(null)} />}
      </Suspense>
      {isOver && open !== 'going on' && (
        <div className="mt-0.5 flex flex-wrap gap-1.5">
          {run.status !== 'done' && (
            <Button disabled={!isFree} onClick={() => setOpen('going on')}>
              {t('Go on with it…')}
            </Button>
          )}
          <BurnAgain run={run} disabled={!isFree} />
        </div>
      )}
      <TakenSheets run={run} />
    </li>
  );
}
