import { firstRun, landingWords, type Run } from '@lambent/core/document';
import { addRun, changeRun } from '@lambent/core/edits';
import { isBurnt } from '@lambent/core/operations';
import { Plus } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { said, t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { newId } from '../new-id.ts';
import { jobOf } from '../state/document.ts';
import { RunsTable } from './runs-table.tsx';

/** All of the job's runs, what burns in which, and how each lies. */
export function RunsPanel({ burnt }: { burnt: ReadonlyMap<string, string> }) {
  const actions = useBenchActions();
  const runs = useBench((state) => jobOf(state).runs);
  const { layers, placed } = useBench((state) => state.prepared.meaning);
  const chosen = useBench((state) => state.prepared.run);
  const used = useMemo(
    () => layers.filter(({ id, operation }) => isBurnt(operation) && (placed.get(id)?.length ?? 0) > 0),
    [layers, placed],
  );
  const add = () => {
    const run: Run = {
      ...firstRun,
      id: newId(),
      name: t('Run {{runs}}', { runs: runs.length + 1 }),
      stock: 'in place',
      off: used.map(({ id }) => id),
    };
    actions.edit(t('add a run'), (job) => addRun(job, run));
    actions.chooseRun(run.id);
  };
  return (
    <div className="flex flex-col gap-3">
      <div className="flex items-baseline justify-between">
        <h2 className="text-[15px] font-bold">{t('Runs')}</h2>
        <p className="text-[12px] text-quiet">
          {t('One trip of the machine each, without moving the stock between them.')}
        </p>
      </div>
      <div className="overflow-x-auto">
        <RunsTable burnt={burnt} layers={used} />
      </div>
      <div className="flex gap-2">
        <Button onClick={add}>
          <Plus size={15} aria-hidden />
          {t('Another run')}
        </Button>
      </div>
      <RunDetails run={chosen} />
    </div>
  );
}

/** How the run lies: which items, the stock, the back, where it lands. */
function RunDetails({ run }: { run: Run }) {
  const actions = useBenchActions();
  const selection = useBench((state) => state.selection);
  const jobId = useBench((state) => state.jobId);
  const change = (name: string, part: Partial<Omit<Run, 'id'>>) =>
    actions.edit(t('{{name}} of {{name2}}', { name, name2: run.name }), (job) => changeRun(job, run.id, part));
  return (
    <div className="flex flex-col gap-2 border-t border-line pt-3">
      <p className="text-quiet">{run.name}</p>
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label={t('Stock')}
          value={run.stock}
          options={[
            { value: 'fresh' as const, text: t('As it came') },
            { value: 'in place' as const, text: t('Left in place') },
            { value: 'turned over' as const, text: t('Turned over') },
          ]}
          choose={(stock) => change('stock', { stock })}
        />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={run.mirrored}
            onChange={(event) =>
              change('back', {
                mirrored: event.target.checked,
                ...(event.target.checked ? { stock: 'turned over' as const } : {}),
              })
            }
            className="size-4 accent-petrol"
          />
          {t('Mirrored for the back')}
        </label>
      </div>
      <p>
        {t('Burns {{landingWords}}.', { landingWords: said(landingWords[run.landing.kind]) })}{' '}
        <Link to={`/jobs/${jobId}/burn`} replace className="font-semibold text-petrol underline">
          {t('Burn')}
        </Link>{' '}
        {t('says where.')}
      </p>
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1">
          {run.only
            ? t(run.only.length === 1 ? 'Only 1 chosen item burns' : 'Only {{only}} chosen items burn', {
                only: run.only.length,
              })
            : t('Every item of its layers burns')}
        </span>
        {run.only && (
          <>
            <Button look="quiet" onClick={() => actions.select(run.only ?? [])}>
              {t('Show them')}
            </Button>
            <Button onClick={() => change('items', { only: null })}>{t('All again')}</Button>
          </>
        )}
        <Button disabled={selection.size === 0} onClick={() => change('items', { only: [...selection] })}>
          {t('Only the selection')}
        </Button>
      </div>
    </div>
  );
}
