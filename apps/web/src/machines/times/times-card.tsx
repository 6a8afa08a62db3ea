import type { MachineState, TimingAnswer } from '@lambent/contracts';
import { type Machine, machineFigures } from '@lambent/core/machine';
import { corrected, driftOf, type FittedFigure, timingCard, withMotion } from '@lambent/core/timing';
import { useMutation, useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useMemo } from 'react';
import { api, sentenceOf } from '../../api.ts';
import { useHand } from '../../hand/use-hand.ts';
import { wholeDayAndTimeOf } from '../../stores/dates.ts';
import { useLive } from '../../stores/live.ts';
import { inSentence } from '../../stores/numbers.ts';
import { Button } from '../../ui/button.tsx';
import { formatDuration } from '../../ui/figures.ts';
import { Notice } from '../../ui/notice.tsx';
import { PressButton } from '../../ui/press-button.tsx';
import { ProgressBar } from '../../ui/progress-bar.tsx';
import { said, t } from '../../words/words.ts';

const TimesChart = lazy(() => import('./times-chart.tsx'));

interface Props {
  readonly machine: Machine;
  /** Whether it is kept as it stands here. */
  readonly isSaved: boolean;
  readonly save: (machine: Machine) => void;
}

/** How far the times of a machine can be trusted: what its runs took, and its timing card. */
export function TimesCard({ machine, isSaved, save }: Props) {
  const runs = useQuery({
    queryKey: ['runs', 'of', machine.id],
    queryFn: () => api.searchRuns({ machine: machine.id }),
  });
  // The rest of a run that was broken off began elsewhere than it was planned from.
  const burnt = useMemo(
    () => (runs.data ?? []).filter(({ status, afterRunId }) => status === 'done' && afterRunId === null),
    [runs.data],
  );
  const drift = driftOf(burnt, machine.timesSince);
  const off = drift ? Math.round(1000 * (drift.share - 1)) / 10 : 0;
  return (
    <section className="rounded-xl border border-line bg-paper p-4" aria-label={t('Its times')}>
      <h2 className="mb-2 font-bold">{t('Its times')}</h2>
      {runs.isError && <Notice level="blocks">{sentenceOf(runs.error)}</Notice>}
      {burnt.length === 0 ? (
        <p className="mb-3 text-quiet">
          {t('What its runs took, against what was planned, is shown here after the first one.')}
        </p>
      ) : (
        <Suspense fallback={<div className="h-[170px]" />}>
          <TimesChart runs={burnt} since={machine.timesSince} />
        </Suspense>
      )}
      {drift?.isTold ? (
        <div className="mb-3">
          <Notice level="warns">
            {inSentence(
              t('Its last {{count}} runs took {{off}} % {{off2}} than was planned.', {
                count: drift.count,
                off: Math.abs(off),
                off2: off > 0 ? 'longer' : 'less',
              }),
            )}
            <div className="mt-2">
              <Button disabled={!isSaved} onClick={() => save(corrected(machine, drift, new Date().toISOString()))}>
                {t('Correct its times')}
              </Button>
            </div>
          </Notice>
        </div>
      ) : (
        drift && (
          <p className="mb-3 text-quiet">
            {inSentence(
              drift.count < 3
                ? t('So far {{counted}} how its times hold.', {
                    counted: drift.count === 1 ? t('one run says') : t('{{count}} runs say', { count: drift.count }),
                  })
                : t('Its last {{count}} runs took what was planned, {{off}} % off.', {
                    count: drift.count,
                    off: Math.abs(off),
                  }),
            )}
          </p>
        )
      )}
      <TimingCardPart machine={machine} isSaved={isSaved} save={save} />
    </section>
  );
}

function TimingCardPart({ machine, isSaved, save }: Props) {
  const state = useLive((live) => live.machines[machine.id]);
  const timing = useQuery({ queryKey: ['timing', machine.id], queryFn: () => api.timing(machine.id) });
  const start = useMutation({ mutationFn: () => api.runTimingCard(machine.id) });
  const errand = state?.errand?.kind === 'timing' ? state.errand : null;
  const isRunning = errand !== null;
  const { refetch } = timing;
  useEffect(() => {
    if (!isRunning) void refetch();
  }, [isRunning, refetch]);
  const seconds = useMemo(
    () => timingCard(machine).reduce((sum, { lines }) => lines.reduce((all, line) => all + line.seconds, sum), 0),
    [machine],
  );
  const rests = restsBecause(state, isSaved);
  const { card, trouble } = timing.data ?? { card: null, trouble: null };
  return (
    <>
      <h3 className="mb-1 border-t border-line pt-3 font-semibold">{t('Timing card')}</h3>
      <p className="mb-2 text-quiet">
        {t(
          'The head moves unlit in the middle of the bed, for about {{seconds}}. From how long that takes, Lambent finds how this machine speeds up, turns, and reads its lines.',
          { seconds: formatDuration(seconds) },
        )}
      </p>
      {errand ? (
        <Running share={errand.share ?? 0} machineId={machine.id} />
      ) : (
        <>
          <Button disabled={rests !== null || start.isPending} onClick={() => start.mutate()}>
            {t('Run the timing card')}
          </Button>
          {rests && <p className="mt-1.5 text-quiet">{rests}</p>}
        </>
      )}
      {start.isError && <Notice level="blocks">{sentenceOf(start.error)}</Notice>}
      {trouble && !isRunning && (
        <div className="mt-2.5">
          <Notice level="warns">{trouble}</Notice>
        </div>
      )}
      {card && !isRunning && <Found card={card} machine={machine} isSaved={isSaved} save={save} />}
    </>
  );
}

function restsBecause(state: MachineState | undefined, isSaved: boolean): string | null {
  if (!isSaved) return t('Save the machine first.');
  if (!state || state.state === 'away') return t('The machine does not answer.');
  if (state.state !== 'idle' || state.errand) return t('The machine is not free.');
  return null;
}

function Running({ share, machineId }: { share: number; machineId: string }) {
  const hand = useHand(machineId);
  const percent = Math.round(100 * share);
  return (
    <div className="flex items-center gap-3">
      <ProgressBar label={t('Timing card')} share={share} />
      <span className="w-24 text-quiet">
        {share < 0.9 ? t('{{percent}} % measured', { percent }) : t('Working it out')}
      </span>
      <PressButton look="danger" act={() => hand.tell('stop')}>
        {t('Stop')}
      </PressButton>
    </div>
  );
}

type Card = NonNullable<TimingAnswer['card']>;

function Found({ card, machine, isSaved, save }: { card: Card } & Props) {
  const worst = (planned: 'standsS' | 'fittedS') =>
    Math.max(...card.parts.map((part) => Math.abs(part[planned] / part.tookS - 1)));
  const percent = (share: number) => Number((100 * share).toPrecision(2));
  const next = withMotion(machine, card.motion, new Date(card.measuredAt).toISOString());
  const isTaken = card.figures.every(({ figure }) => next[figure] === machine[figure]);
  return (
    <div className="mt-3">
      <p className="mb-2">
        {inSentence(
          t(
            'Measured {{when}}. By the figures that stood then, a part of the card was up to {{stood}} % off; by those that were found, {{found}} %.',
            {
              when: wholeDayAndTimeOf(card.measuredAt),
              stood: percent(worst('standsS')),
              found: percent(worst('fittedS')),
            },
          ),
        )}
      </p>
      <table className="w-full">
        <thead>
          <tr className="text-left text-quiet">
            <th className="py-1 font-normal">{t('Figure')}</th>
            <th className="py-1 text-right font-normal">{t('Stands')}</th>
            <th className="py-1 text-right font-normal">{t('Found')}</th>
          </tr>
        </thead>
        <tbody>
          {card.figures.map((found) => (
            <tr key={found.figure} className="border-t border-line">
              <th className="py-1 pr-2 text-left font-normal">{said(machineFigures[found.figure].name)}</th>
              <td className="py-1 pr-2 text-right tabular-nums">{standing(machine[found.figure])}</td>
              <td className="py-1 text-right tabular-nums">{inSentence(foundInWords(found))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-2.5">
        {isTaken ? (
          <p className="text-quiet">{t('These figures stand with the machine.')}</p>
        ) : (
          <Button look="main" disabled={!isSaved} onClick={() => save(next)}>
            {t('Take these figures')}
          </Button>
        )}
      </div>
    </div>
  );
}

function standing(value: number | undefined): string {
  return value === undefined ? '–' : inSentence(String(value));
}

/** What was found, with its doubt: such as `2480 mm/s² ± 0.1 %`. */
function foundInWords({ figure, value, doubt, bound }: FittedFigure): string {
  if (value === null) return figure === 'accelerationY' ? t('the same') : 'none';
  const { unit } = machineFigures[figure];
  const said = `${Number(value.toPrecision(4))} ${unit}`;
  if (bound) return `${bound === 'least' ? t('at least') : t('at most')} ${said}`;
  return `${said} ± ${Number((100 * (doubt ?? 0)).toPrecision(1))} %`;
}
