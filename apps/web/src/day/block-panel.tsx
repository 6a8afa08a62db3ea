import type { DayAnswer, NextRunAnswer } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { useQuery } from '@tanstack/react-query';
import { ArrowLeft, ArrowRight, Flame } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { dayOf, whenOf } from '../stores/dates.ts';
import { useLive } from '../stores/live.ts';
import { askToNotify } from '../stores/run-ends.ts';
import { useWho } from '../stores/who.ts';
import { Button } from '../ui/button.tsx';
import { counted } from '../ui/counted.ts';
import { asSize, formatDuration } from '../ui/figures.ts';
import { stateLook } from '../ui/machine-state.ts';
import { Tick } from '../ui/tick.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { said, t } from '../words/words.ts';
import type { GivenBlock } from './use-day.ts';
import { type DayPlace, useGive } from './use-give.ts';

interface Props {
  readonly block: GivenBlock;
  readonly day: DayAnswer;
  readonly machines: readonly Machine[];
  readonly close: () => void;
}

/** A job that waits for its machine: when it burns, what is to lie on the bed for it, where else it can go. */
export default function BlockPanel({ block, day, machines, close }: Props) {
  const { jobId, title, whose, seconds, wantedBy, isLate, machineId } = block;
  const give = useGive();
  const blocks = day.machines.find((machine) => machine.machineId === machineId)?.blocks ?? [];
  const place = blocks.findIndex((other) => other.jobId === jobId);
  const put = (where: DayPlace | null) => {
    close();
    void give({ id: jobId, title }, where, block);
  };
  const machine = machines.find(({ id }) => id === machineId);
  return (
    <section aria-label={title}>
      <h3 className="text-[15px] font-bold [overflow-wrap:anywhere]">
        <Link to={`/jobs/${jobId}`} className="text-petrol hover:underline">
          {title}
        </Link>
      </h3>
      <p className="text-quiet">{whose || t('Nobody’s yet')}</p>
      <p className="mt-1">
        {t('{{from}} to {{until}}', { from: whenOf(block.from), until: whenOf(block.until) })}
        {seconds !== null && <span className="figures">, {formatDuration(seconds)}</span>}
      </p>
      {wantedBy && (
        <p className={isLate ? 'font-semibold text-stop' : ''}>
          {isLate
            ? t('Wanted by {{day}}: it will be late here.', { day: dayOf(wantedBy) })
            : t('Wanted by {{day}}', { day: dayOf(wantedBy) })}
        </p>
      )}
      {machine && <StartHere jobId={jobId} machine={machine} close={close} />}
      <div className="mt-3 flex flex-wrap gap-2 border-t border-line pt-3">
        <Button disabled={place <= 0} onClick={() => put({ machineId, beforeJobId: blocks[place - 1].jobId })}>
          <ArrowLeft size={14} aria-hidden />
          {t('Earlier')}
        </Button>
        <Button
          disabled={place < 0 || place === blocks.length - 1}
          onClick={() => put({ machineId, ...(blocks[place + 2] ? { beforeJobId: blocks[place + 2].jobId } : {}) })}
        >
          <ArrowRight size={14} aria-hidden />
          {t('Later')}
        </Button>
        {machines
          .filter(({ id }) => id !== machineId)
          .map(({ id, name }) => (
            <Button key={id} onClick={() => put({ machineId: id })}>
              {t('Give to {{name}}', { name })}
            </Button>
          ))}
        <Button onClick={() => put(null)}>{t('Take it off the day')}</Button>
      </div>
    </section>
  );
}

/** What is to lie on the bed, and the way to start once somebody has said that it does. */
function StartHere({ jobId, machine, close }: { jobId: string; machine: Machine; close: () => void }) {
  const who = useWho();
  const [isLaid, setLaid] = useState(false);
  const next = useQuery({ queryKey: ['jobs', 'next-run', jobId], queryFn: () => api.nextRun(jobId), staleTime: 0 });
  const state = useLive((live) => live.machines[machine.id]?.state ?? 'away');
  const makingReady = useLive((live) => live.machines[machine.id]?.makingReady ?? null);
  const isIdle = state === 'idle' && makingReady === null;
  const [start, trouble] = useSent(async ({ version, runId }: NextRunAnswer) => {
    askToNotify();
    await api.startRun(jobId, { version, runId, ...(who ? { by: who } : {}) });
    close();
  });
  if (next.isError) return <p className="mt-3 text-stop">{sentenceOf(next.error)}</p>;
  if (!next.data) return null;
  const { sheets, stock, runName } = next.data;
  return (
    <div className="mt-3 border-t border-line pt-3">
      <h4 className="font-semibold">{t('To lay for {{name}}', { name: said(runName) })}</h4>
      {sheets.length === 0 && stock === 'fresh' && <p className="text-quiet">{t('This job has no sheet yet.')}</p>}
      {stock === 'in place' && <p>{t('The stock of the run before stays where it lies.')}</p>}
      {stock === 'turned over' && <p>{t('The stock of the run before is turned over.')}</p>}
      <ul>
        {sheets.map(({ name, width, height, pieces, inStock }) => (
          <li key={`${name} ${width} ${height}`}>
            <span className="font-semibold">{name}</span>, <span className="figures">{asSize(width, height)}</span>
            <span className="text-quiet">
              , {counted(pieces, 'piece')}
              {inStock !== null && `, ${t('in stock: {{inStock}}', { inStock })}`}
            </span>
          </li>
        ))}
      </ul>
      <div className="my-2">
        <Tick checked={isLaid} set={setLaid}>
          {t('It lies on {{name}}', { name: machine.name })}
        </Tick>
      </div>
      <Button look="main" disabled={!isLaid || !isIdle} onClick={() => void start(next.data)}>
        <Flame size={15} aria-hidden />
        {isIdle ? t('Start on {{name}}', { name: machine.name }) : `${machine.name}: ${stateLook(state).text}`}
      </Button>
      {trouble}
    </div>
  );
}
