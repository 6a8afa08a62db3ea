import { type Machine, type MachineKind, machineDoubts, usualMachine } from '@lambent/core/machine';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useBlocker, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { t } from '../words/words.ts';
import { BedPicture } from './bed-picture.tsx';
import { ConnectionCard } from './connection-card.tsx';
import { MachineForm } from './machine-form.tsx';
import { PutAway, usesInWords, useUses } from './put-away.tsx';
import { TimesCard } from './times/times-card.tsx';

interface Props {
  /** Missing where it is new. */
  readonly stored?: Machine;
  /** Tells this editor from others: it goes on with a machine that was added in it. */
  readonly editor: string;
}

/** A machine while it is added or changed. */
export function MachineEditor({ stored, editor }: Props) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [kept, setKept] = useState(stored);
  const [draft, setDraft] = useState<Machine>(stored ?? usualMachine('co2'));
  const [isTouched, setTouched] = useState(false);
  const doubts = machineDoubts(draft);
  const change = (part: Partial<Machine>) => {
    setTouched(true);
    setDraft((known) => ({ ...known, ...part }));
  };
  const uses = useUses(kept?.id);
  const save = useMutation({
    mutationFn: (machine: Machine) => (kept ? api.changeMachine(machine) : api.addMachine(machine)),
    onSuccess: async (machine) => {
      setKept(machine);
      setDraft(machine);
      setTouched(false);
      queries.setQueryData<Machine[]>(['machines'], (known = []) =>
        known.some(({ id }) => id === machine.id)
          ? known.map((entry) => (entry.id === machine.id ? machine : entry))
          : [...known, machine],
      );
      toast.success(t('{{name}} is saved.', { name: machine.name }));
    },
  });
  const blocked = doubts.find(({ blocks }) => blocks);
  const missing = draft.name.trim() === '' ? t('Give it a name first.') : placeMissing(draft);
  const leaving = useBlocker(isTouched && !save.isPending);
  // The kind of a machine of which nothing was typed yet decides what one begins with.
  const chooseKind = (kind: MachineKind) => {
    if (kept || isTouched) change({ kind });
    else setDraft({ ...usualMachine(kind), name: draft.name });
  };
  return (
    <>
      <section
        className="flex min-w-0 flex-1 flex-col self-start rounded-xl border border-line bg-paper"
        aria-label={kept?.name ?? t('A new machine')}
      >
        <div className="px-5 pt-4">
          <div className="mb-3 flex items-baseline gap-3">
            <h1 className="min-w-0 truncate text-xl font-bold">{draft.name.trim() || t('A new machine')}</h1>
            <span className="ml-auto shrink-0 text-quiet">
              {kept ? usesInWords(uses.data) : t('Usual figures to begin with')}
            </span>
          </div>
          <MachineForm draft={draft} change={change} doubts={doubts} chooseKind={chooseKind} />
        </div>
        <div className="sticky bottom-0 rounded-b-xl border-t border-line bg-paper px-5 py-3">
          {save.isError && (
            <div className="mb-2.5">
              <Notice level="blocks">{sentenceOf(save.error)}</Notice>
            </div>
          )}
          {leaving.state === 'blocked' && (
            <div className="mb-2.5">
              <Notice level="warns" title={t('What was typed is not saved.')}>
                <div className="mt-2 flex gap-2">
                  <Button onClick={() => leaving.reset()}>{t('Stay here')}</Button>
                  <Button look="danger" onClick={() => leaving.proceed()}>
                    {t('Leave without saving')}
                  </Button>
                </div>
              </Notice>
            </div>
          )}
          <div className="flex flex-wrap items-center gap-2">
            <Button
              look="main"
              disabled={save.isPending || missing !== null || blocked !== undefined || (kept && !isTouched)}
              onClick={() =>
                save.mutate(draft, {
                  onSuccess: (machine) => {
                    if (!stored) navigate(`/machines/${machine.id}`, { replace: true, state: { editor } });
                  },
                })
              }
            >
              {save.isPending ? t('Saving…') : kept ? t('Save') : t('Add the machine')}
            </Button>
            {kept && isTouched && (
              <Button
                onClick={() => {
                  setDraft(kept);
                  setTouched(false);
                }}
              >
                {t('Take the changes back')}
              </Button>
            )}
            {kept && !isTouched && <PutAway machine={kept} uses={uses.data} put={(machine) => save.mutate(machine)} />}
            <span className="ml-auto text-quiet">
              {missing ?? blocked?.message ?? (isTouched ? t('Changed, not saved yet') : kept ? t('Saved') : '')}
            </span>
          </div>
        </div>
      </section>
      <div className="flex w-full shrink-0 flex-col gap-4 self-start lg:w-[372px]">
        <section className="rounded-xl border border-line bg-paper p-4" aria-label={t('Its bed')}>
          <div className="mb-1 flex items-baseline">
            <h2 className="font-bold">{t('Its bed')}</h2>
            <span className="ml-auto text-quiet">{t('as you type')}</span>
          </div>
          <BedPicture machine={draft} />
        </section>
        <ConnectionCard
          machine={draft}
          isSaved={kept !== undefined && !isTouched}
          change={(connection) => change({ connection })}
          takeFigures={change}
        />
        {kept && <TimesCard machine={draft} isSaved={!isTouched} save={(machine) => save.mutate(machine)} />}
        <p className="px-1 text-[12px] text-quiet">
          <Link to="/machines" className="font-semibold text-petrol underline">
            {t('All machines')}
          </Link>{' '}
          {t('shows where their heads are, and holds and stops them.')}
        </p>
      </div>
    </>
  );
}

function placeMissing({ connection }: Machine): string | null {
  if (connection?.kind === 'network' && connection.host.trim() === '') return t('Say which host it listens on.');
  return connection?.kind === 'serial' && connection.path.trim() === '' ? t('Say at which port it is.') : null;
}
