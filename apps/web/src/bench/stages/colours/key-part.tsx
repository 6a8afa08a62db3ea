import { type ColourKey, changeOfKey, type KeyChange } from '@lambent/core/colours';
import { setKey } from '@lambent/core/edits';
import { Settings2 } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { Part } from '../drawer.tsx';

const KeepAsKeyForm = lazy(() => import('./keep-as-key-form.tsx'));

/** The key the job goes by. Another one is taken once it is said what that changes. */
export function KeyPart() {
  const actions = useBenchActions();
  const keys = useBench((state) => state.shop.keys);
  const key = useBench((state) => state.prepared.key);
  const job = useBench(jobOf);
  const [wanted, setWanted] = useState<{ key: ColourKey; change: KeyChange } | null>(null);
  const take = (next: ColourKey) => {
    actions.edit(t('change colour key'), (before) => setKey(before, next.id));
    setWanted(null);
  };
  const consider = (id: string) => {
    const next = keys.find((known) => known.id === id);
    if (!next || next === key) {
      setWanted(null);
      return;
    }
    const change = changeOfKey(job, key, next);
    if (change.moves.length === 0) take(next);
    else setWanted({ key: next, change });
  };
  return (
    <Part title={t('Colour key')}>
      <div className="flex items-center gap-1.5">
        <div className="min-w-0 flex-1">
          <Choice
            label={t('Colour key')}
            bare
            value={wanted?.key.id ?? key.id}
            options={keys.map(({ id, name }) => ({ value: id, text: name }))}
            choose={consider}
          />
        </div>
        <Link
          to={`/keys/${key.id}`}
          aria-label={t('The shop’s colour keys')}
          title={t('The shop’s colour keys')}
          className="flex size-9 shrink-0 pointer-coarse:size-11 items-center justify-center rounded-lg border border-line bg-raised hover:border-petrol"
        >
          <Settings2 size={16} aria-hidden />
        </Link>
      </div>
      {wanted && <Change change={wanted.change} take={() => take(wanted.key)} leave={() => setWanted(null)} />}
      {job.assignments.length > 0 && !wanted && <KeepAsKey />}
    </Part>
  );
}

/** What another key would change, before it does. */
function Change({ change, take, leave }: { change: KeyChange; take: () => void; leave: () => void }) {
  const actions = useBenchActions();
  const count = change.moves.reduce((sum, { itemIds }) => sum + itemIds.length, 0);
  return (
    <div className="rounded-[10px] border border-petrol/50 bg-petrol-soft/50 p-3" data-testid="key-change">
      <p className="font-semibold">
        {t(count === 1 ? '1 item changes, {{same}} as now' : '{{count}} items change, {{same}} as now', {
          count,
          same: change.same,
        })}
      </p>
      <ul className="my-1.5 max-h-40 overflow-y-auto text-[12.5px]">
        {change.moves.map(({ from, to, itemIds }) => (
          <li
            key={`${from} ${to}`}
            className="flex justify-between gap-2"
            onPointerEnter={() => actions.pointOut(itemIds)}
            onPointerLeave={() => actions.pointOut([])}
          >
            <span className="truncate">
              {from ?? t('no meaning')} →{' '}
              <span className={to === null ? 'text-stop' : ''}>{to ?? t('no meaning')}</span>
            </span>
            <span className="figures shrink-0">{itemIds.length}</span>
          </li>
        ))}
      </ul>
      <div className="flex gap-2">
        <Button look="main" onClick={take}>
          {t('Change the key')}
        </Button>
        <Button onClick={leave}>{t('Leave it')}</Button>
      </div>
    </div>
  );
}

function KeepAsKey() {
  const [open, setOpen] = useState(false);
  if (!open) {
    return (
      <Button look="quiet" className="-ml-3 self-start" onClick={() => setOpen(true)}>
        {t('Keep these colours as a key')}
      </Button>
    );
  }
  return (
    <Suspense>
      <KeepAsKeyForm leave={() => setOpen(false)} />
    </Suspense>
  );
}
