import type { RunAnswer } from '@lambent/contracts';
import { formatClock } from '@lambent/core/units';
import { sentenceOf } from '../../../api.ts';
import { dayAndTimeOf } from '../../../stores/dates.ts';
import { Notice } from '../../../ui/notice.tsx';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { useRuns } from '../../use-runs.ts';
import { Part } from '../drawer.tsx';
import { TakenSheets } from './taken-sheets.tsx';

/** What was burnt of this job. */
export function RecordPart() {
  const { runs, error } = useRuns();
  return (
    <Part title="Record">
      {error && <Notice level="blocks">{sentenceOf(error)}</Notice>}
      {runs.length === 0 && !error && <p className="text-quiet">This job has not been burnt yet.</p>}
      <ul className="flex flex-col gap-2">
        {runs.map((run) => (
          <RunRow key={run.id} run={run} />
        ))}
      </ul>
    </Part>
  );
}

const runInk: Record<RunAnswer['status'], string> = {
  running: 'text-ink',
  held: 'text-warn',
  done: 'text-[#2E7A4C]',
  stopped: 'text-warn',
  refused: 'text-stop',
  'broken off': 'text-stop',
};

function RunRow({ run }: { run: RunAnswer }) {
  const actions = useBenchActions();
  const several = useBench((state) => jobOf(state).runs.length > 1);
  const pictured = useBench((state) => state.pictured === run.id);
  const name = useBench((state) => state.shop.machines.find(({ id }) => id === run.machineId)?.name ?? run.machineId);
  return (
    <li
      className="rounded-[10px] border border-line bg-raised px-3 py-2"
      data-testid="run-row"
      data-status={run.status}
    >
      <p className="flex justify-between gap-2">
        <span className={`font-semibold ${runInk[run.status]}`}>{run.status}</span>
        <span className="figures text-[12px] text-quiet">{dayAndTimeOf(run.startedAt)}</span>
      </p>
      <p className="text-[12px] text-quiet">
        {several && `${run.jobRunName}, `}
        {name}, version {run.version}, planned {formatClock(run.plannedS)}
        {run.endedAt && `, took ${formatClock(run.machineS)}`}
      </p>
      {run.reason && (
        <p className="text-[12px]">
          {run.reason}, at line {run.doneLine} of {run.lines}
        </p>
      )}
      {run.hasPicture && (
        <button
          type="button"
          aria-pressed={pictured}
          onClick={() => actions.showPictureOf(pictured ? null : run.id)}
          className="block text-[12px] font-semibold text-petrol underline"
        >
          {pictured ? 'leave how it came out' : 'how it came out'}
        </button>
      )}
      <a
        href={`/api/runs/${run.id}/program.gcode`}
        download
        className="text-[12px] font-semibold text-petrol underline"
      >
        the program that was sent
      </a>
      <TakenSheets run={run} />
    </li>
  );
}
