import { atWork, beamOf, type Machine } from '@lambent/core/machine';
import { Plus } from 'lucide-react';
import { Link, NavLink } from 'react-router';
import { useLive } from '../stores/live.ts';
import { asSize } from '../ui/figures.ts';
import { stateLook } from '../ui/machine-state.ts';
import { t } from '../words/words.ts';

/** The machines of the shop, each with what it does now, and the way to another. */
export function MachineList({ machines }: { machines: readonly Machine[] }) {
  const putAway = machines.filter(({ isPutAway }) => isPutAway);
  return (
    <aside
      className="flex w-full shrink-0 flex-col gap-1 self-start rounded-xl border border-line bg-paper p-3 lg:w-[236px]"
      aria-label={t('Machines')}
    >
      <p className="px-2 pb-1 text-[15px] font-bold">
        <Link to="/machines" className="hover:text-petrol">
          {t('Machines')}
        </Link>
      </p>
      <ul className="flex flex-wrap gap-1 lg:flex-col">
        {atWork(machines).map((machine) => (
          <li key={machine.id} className="min-w-44 lg:min-w-0">
            <Entry machine={machine} />
          </li>
        ))}
      </ul>
      {putAway.length > 0 && (
        <>
          <p className="px-2 pt-2 text-[12px] text-quiet">{t('Put away')}</p>
          <ul className="flex flex-wrap gap-1 lg:flex-col">
            {putAway.map((machine) => (
              <li key={machine.id} className="min-w-44 lg:min-w-0">
                <Entry machine={machine} />
              </li>
            ))}
          </ul>
        </>
      )}
      <Link
        to="/machines/new"
        className="mt-2 inline-flex h-8 items-center gap-1.5 self-start rounded-lg border border-line bg-raised px-3 hover:border-petrol"
      >
        <Plus size={15} aria-hidden />
        {t('Add a machine')}
      </Link>
    </aside>
  );
}

function Entry({ machine }: { machine: Machine }) {
  const state = useLive((live) => live.machines[machine.id]?.state ?? 'away');
  const look = stateLook(state);
  return (
    <NavLink
      to={`/machines/${machine.id}`}
      className="block rounded-lg px-2.5 py-2 hover:bg-table aria-[current=page]:bg-petrol-soft"
    >
      <span className="flex items-center gap-2">
        <span className="min-w-0 flex-1 truncate font-semibold">{machine.name}</span>
        {!machine.isPutAway && (
          <span className="flex shrink-0 items-center gap-1.5 text-[12px]">
            <span className={`size-2 rounded-full ${look.dot}`} aria-hidden />
            {machine.connection ? look.text : t('Not connected')}
          </span>
        )}
      </span>
      <span className="block text-[12px] text-quiet">
        {beamOf(machine)} · {asSize(machine.bedWidth, machine.bedHeight)}
      </span>
    </NavLink>
  );
}
