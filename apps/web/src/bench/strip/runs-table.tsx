import type { Layer, Run } from '@lambent/core/document';
import { changeRun, moveRun, removeRun, switchLayer } from '@lambent/core/edits';
import { createColumnHelper } from '@tanstack/react-table';
import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { createContext, useContext, useMemo, useState } from 'react';
import { dayAndTimeOf } from '../../stores/dates.ts';
import { IconButton } from '../../ui/button.tsx';
import { counted } from '../../ui/counted.ts';
import { type CellOf, DataTable, type tableParts } from '../../ui/data-table.tsx';
import { OperationMark } from '../../ui/operation-mark.tsx';
import { t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf } from '../state/document.ts';

const stockWords: Record<Run['stock'], string> = {
  fresh: t('stock as it came'),
  'in place': t('stock left in place'),
  'turned over': t('stock turned over'),
};

type RunLayer = Pick<Layer, 'id' | 'name' | 'operation'>;
type Cell = CellOf<Run>;

/** When runs were burnt last, and what layers are called: by their ids. */
const Known = createContext<{ burnt: ReadonlyMap<string, string>; layers: readonly RunLayer[] }>({
  burnt: new Map(),
  layers: [],
});

function NameCell({ row: { original: run } }: Cell) {
  const { burnt } = useContext(Known);
  const actions = useBenchActions();
  const chosen = useBench((state) => state.prepared.run.id);
  const [typed, setTyped] = useState<string | null>(null);
  const rename = () => {
    const name = typed?.trim();
    setTyped(null);
    if (name && name !== run.name)
      actions.edit(t('name of {{name}}', { name: run.name }), (job) => changeRun(job, run.id, { name }));
  };
  const burntAt = burnt.get(run.id);
  return (
    <span className="flex items-center gap-2">
      <input
        type="radio"
        name="run"
        aria-label={t('Look at {{name}}', { name: run.name })}
        checked={run.id === chosen}
        onChange={() => actions.chooseRun(run.id)}
        className="accent-petrol"
      />
      <span>
        <input
          aria-label={t('Name of {{name}}', { name: run.name })}
          value={typed ?? run.name}
          maxLength={60}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={rename}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
          className="w-[128px] rounded border border-transparent bg-transparent px-1 font-semibold hover:border-line"
        />
        <span className="block px-1 text-[12px] text-quiet">
          {burntAt ? t('burnt {{burntAt}}', { burntAt: dayAndTimeOf(burntAt) }) : stockWords[run.stock]}
          {run.mirrored && t(', mirrored')}
          {run.only && t(', {{items}} only', { items: counted(run.only.length, 'item') })}
        </span>
      </span>
    </span>
  );
}

/** Whether a layer burns in a run; the column’s id is the layer’s. */
function BurnsCell({ row: { original: run }, column }: Cell) {
  const actions = useBenchActions();
  const name = useContext(Known).layers.find(({ id }) => id === column.id)?.name ?? column.id;
  const on = !run.off.includes(column.id);
  return (
    <input
      type="checkbox"
      aria-label={t('{{name}} burns in {{name2}}', { name, name2: run.name })}
      checked={on}
      onChange={() =>
        actions.edit(
          on
            ? t('{{layer}} out of {{run}}', { layer: name, run: run.name })
            : t('{{layer}} into {{run}}', { layer: name, run: run.name }),
          (job) => switchLayer(job, column.id, !on, run.id),
        )
      }
      className="size-4 accent-petrol"
    />
  );
}

function LayerHead({ column }: Pick<Cell, 'column'>) {
  const layer = useContext(Known).layers.find(({ id }) => id === column.id);
  if (!layer) return null;
  return (
    <span className="flex flex-col items-center" title={layer.name}>
      <OperationMark operation={layer.operation} />
      <span className="w-full truncate text-center">{layer.name}</span>
    </span>
  );
}

function ActionsCell({ row: { original: run } }: Cell) {
  const actions = useBenchActions();
  const runs = useBench((state) => jobOf(state).runs);
  if (runs.length < 2) return null;
  const index = runs.indexOf(run);
  return (
    <span className="inline-flex">
      <IconButton
        label={t('{{name}} earlier', { name: run.name })}
        className="size-7"
        disabled={index === 0}
        onClick={() => actions.edit(t('move a run'), (job) => moveRun(job, run.id, -1))}
      >
        <ArrowUp size={14} aria-hidden />
      </IconButton>
      <IconButton
        label={t('{{name}} later', { name: run.name })}
        className="size-7"
        disabled={index === runs.length - 1}
        onClick={() => actions.edit(t('move a run'), (job) => moveRun(job, run.id, 1))}
      >
        <ArrowDown size={14} aria-hidden />
      </IconButton>
      <IconButton
        label={t('Take {{name}} away', { name: run.name })}
        className="size-7"
        onClick={() => actions.edit(t('take {{name}} away', { name: run.name }), (job) => removeRun(job, run.id))}
      >
        <Trash2 size={14} aria-hidden />
      </IconButton>
    </span>
  );
}

const helper = createColumnHelper<typeof tableParts, Run>();
const nameColumn = helper.display({ id: ' name', header: t('Run'), cell: NameCell, meta: { cell: 'py-1 pl-2' } });
const actionsColumn = helper.display({
  id: ' actions',
  header: () => <span className="sr-only">{t('What can be done')}</span>,
  cell: ActionsCell,
  meta: { cell: 'pr-1 text-right' },
});

/** The runs of the job, and which layers burn in each. */
export function RunsTable({ burnt, layers }: { burnt: ReadonlyMap<string, string>; layers: readonly RunLayer[] }) {
  const runs = useBench((state) => jobOf(state).runs);
  const chosen = useBench((state) => state.prepared.run.id);
  const columns = useMemo(
    () => [
      nameColumn,
      ...layers.map(({ id }) =>
        helper.display({
          id,
          header: LayerHead,
          cell: BurnsCell,
          meta: { head: 'max-w-[88px] truncate px-1', cell: 'text-center' },
        }),
      ),
      actionsColumn,
    ],
    [layers],
  );
  return (
    <Known.Provider value={{ burnt, layers }}>
      <DataTable
        label={t('Which layers burn in which run')}
        columns={columns}
        lines={runs}
        idOf={({ id }) => id}
        row={(run) => ({
          className: run.id === chosen ? 'bg-petrol-soft' : '',
          testId: `run-${runs.indexOf(run) + 1}`,
        })}
      />
    </Known.Provider>
  );
}
