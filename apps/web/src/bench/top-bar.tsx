import { priceOf } from '@lambent/core/plan';
import { useQueryClient } from '@tanstack/react-query';
import { Cpu, Layers, Redo2, Undo2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { useInSentence } from '../stores/numbers.ts';
import { IconButton } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { asLength, asSize, formatDuration, formatMoney } from '../ui/figures.ts';
import { t } from '../words/words.ts';
import { useBench, useBenchActions } from './context.ts';
import { changeMachine, offeredMachines } from './machine-choice.ts';
import { SendButton } from './send-button.tsx';
import { chooseMaterial, offeredMaterials } from './sheet-choice.ts';
import { withKeys } from './shortcuts.ts';
import { laterPart } from './stages/later-drawer.tsx';
import { machineOf, type SaveState, unitOf } from './state/document.ts';
import { isPlanned, planOf } from './state/plan.ts';
import { Versions } from './versions.tsx';

const WhoChip = laterPart(async () => (await import('../people/who-chip.tsx')).WhoChip);

/** Job, machine and sheet, undo and redo, the time, and the one main action. */
export function TopBar() {
  const inSentence = useInSentence();
  const unit = useBench(unitOf);
  const actions = useBenchActions();
  const past = useBench((state) => state.history.past.at(-1)?.name);
  const future = useBench((state) => state.history.future[0]?.name);
  const machine = useBench(machineOf);
  const machines = useBench((state) => state.shop.machines);
  const materials = useBench((state) => state.shop.materials);
  const material = useBench((state) => state.prepared.material);
  return (
    <header className="relative z-20 flex min-h-12 shrink-0 items-center gap-x-3 border-b border-line bg-paper pr-3.5 max-lg:flex-wrap max-xl:pointer-coarse:flex-wrap">
      <Link
        to="/"
        className="flex w-[86px] shrink-0 justify-center max-lg:w-14 pointer-coarse:py-2"
        aria-label={t('To the Desk')}
        title={t('To the Desk')}
      >
        <img src="/mark.svg" alt="" className="size-7" />
      </Link>
      <JobName />
      <div className="mx-auto flex gap-3 max-lg:order-last max-lg:w-full max-lg:pb-1.5 max-lg:pl-3.5 max-xl:pointer-coarse:order-last max-xl:pointer-coarse:w-full max-xl:pointer-coarse:pb-1 max-xl:pointer-coarse:pl-[86px]">
        <Choice
          label={t('Machine')}
          look="chip"
          icon={<Cpu size={15} className="shrink-0 text-petrol" aria-hidden />}
          value={machine.id}
          options={offeredMachines(machines, machine.id).map(({ id, name, bedWidth, bedHeight }) => ({
            value: id,
            text: name,
            aside: asSize(bedWidth, bedHeight, unit),
          }))}
          choose={(id) => changeMachine(actions, id)}
        />
        <Choice
          label={t('Material of the sheet')}
          look="chip"
          icon={<Layers size={15} className="shrink-0 text-petrol" aria-hidden />}
          value={material?.id ?? null}
          empty={t('No sheet yet')}
          options={offeredMaterials(materials, material?.id).map(({ id, name, thicknessMm }) => ({
            value: id,
            text: name,
            aside: asLength(thicknessMm, unit),
          }))}
          choose={(id) => chooseMaterial(actions, id)}
        />
      </div>
      <WhoChip isSlim />
      <div className="flex">
        <IconButton
          label={past ? withKeys(t('Undo: {{past}}', { past: inSentence(past) }), 'undo') : t('Nothing to undo')}
          disabled={past === undefined}
          onClick={actions.undo}
        >
          <Undo2 size={18} aria-hidden />
        </IconButton>
        <IconButton
          label={
            future ? withKeys(t('Redo: {{future}}', { future: inSentence(future) }), 'redo') : t('Nothing to redo')
          }
          disabled={future === undefined}
          onClick={actions.redo}
        >
          <Redo2 size={18} aria-hidden />
        </IconButton>
      </div>
      <PlanTime />
      <SendButton />
    </header>
  );
}

function JobName() {
  const actions = useBenchActions();
  const jobId = useBench((state) => state.jobId);
  const title = useBench((state) => state.title);
  const project = useBench((state) => state.project);
  const save = useBench((state) => state.save);
  const queries = useQueryClient();
  const [typed, setTyped] = useState<string | null>(null);
  const rename = async () => {
    const next = typed?.trim();
    setTyped(null);
    if (!next || next === title) return;
    try {
      await api.describeJob(jobId, { title: next });
      actions.rename(next);
      void queries.invalidateQueries({ queryKey: ['jobs'] });
    } catch (error) {
      toast.error(t('The title was not changed. {{error}}', { error: sentenceOf(error) }));
    }
  };
  return (
    <div className="min-w-0 max-w-[290px] flex-1 max-lg:mr-auto max-xl:pointer-coarse:mr-auto pointer-coarse:max-w-[460px] pointer-coarse:flex pointer-coarse:items-center pointer-coarse:gap-2">
      <input
        aria-label={t('Title of the job')}
        title={t('Click to change the title')}
        value={typed ?? title}
        maxLength={120}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => void rename()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            setTyped(null);
            event.stopPropagation();
          }
        }}
        className="-ml-1 block w-full truncate rounded border border-transparent bg-transparent px-1 text-[14px] font-bold leading-5 hover:border-line"
      />
      <p className="truncate text-[12px] leading-4 text-quiet">
        {/* What is not saved is said in full, whatever the project is called. */}
        {t('Desk{{project}} ·', {
          project:
            project && (save.kind === 'saved' || save.kind === 'saving' || save.kind === 'changed')
              ? ` / ${project}`
              : '',
        })}{' '}
        <Versions>
          <SaveWord save={save} />
        </Versions>
      </p>
    </div>
  );
}

function SaveWord({ save }: { save: SaveState }) {
  switch (save.kind) {
    case 'saved':
      return <span data-testid="save-state">{t('saved')}</span>;
    case 'changed':
    case 'saving':
      return <span data-testid="save-state">{t('saving…')}</span>;
    case 'conflict':
      return (
        <span data-testid="save-state" className="font-semibold text-stop">
          {t('changed elsewhere')}
        </span>
      );
    case 'deleted':
      return (
        <span data-testid="save-state" className="font-semibold text-stop">
          {t('deleted elsewhere')}
        </span>
      );
    case 'refused':
      return (
        <span data-testid="save-state" className="font-semibold text-stop" title={save.message}>
          {t('not saved: {{message}}', { message: save.message })}
        </span>
      );
    case 'failed':
      return (
        <span data-testid="save-state" className="font-semibold text-stop" title={save.message}>
          {t('not saved, trying again')}
        </span>
      );
  }
}

function PlanTime() {
  const planned = useBench(planOf);
  const current = useBench(isPlanned);
  const share = useBench((state) => state.plannedShare);
  const count = planned?.steps.length ?? 0;
  const prepared = useBench((state) => state.prepared);
  const shop = useBench((state) => state.shop);
  const pricing = useBench((state) => state.pricing);
  const price = useMemo(
    () => (planned ? priceOf(planned, prepared, shop, pricing) : null),
    [planned, prepared, shop, pricing],
  );
  const parts = [
    ...(price?.parts.map(({ what, amount }) => `${what}: ${formatMoney(amount, pricing)}`) ?? []),
    ...(price?.unpriced.map((what) => t('{{what}}: no price', { what })) ?? []),
  ].join('\n');
  const ink = current ? '' : 'text-quiet';
  return (
    <div className="min-w-[92px] text-right" data-testid="plan-time" aria-live="off">
      <p className={`figures text-[14px] font-bold leading-5 ${ink}`}>
        {planned ? formatDuration(planned.timeS) : '…'}
      </p>
      {share !== null && (
        <p className="text-[12px] leading-4 text-quiet">
          {t('planning, {{share}} %', { share: Math.round(share * 100) })}
        </p>
      )}
      <p className="text-[12px] leading-4 text-quiet" title={parts} hidden={share !== null}>
        {count === 1 ? t('1 step') : t('{{count}} steps', { count })}
        {price && price.total > 0 && (
          <>
            {' · '}
            <span data-testid="plan-price">
              {price.unpriced.length > 0 && t('from ')}
              {formatMoney(price.total, pricing)}
            </span>
          </>
        )}
      </p>
    </div>
  );
}
