import type { DayAnswer } from '@lambent/contracts';
import type { Span } from '@lambent/core/day';
import { atWork, type Machine } from '@lambent/core/machine';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { sentenceOf } from '../api.ts';
import { timeOf, weekdayOf } from '../stores/dates.ts';
import { t } from '../words/words.ts';
import { dayHours, marksIn, namesWidth, nearHours, shareAt } from './hours-shown.ts';
import { MachineLane } from './machine-lane.tsx';
import { useDay } from './use-day.ts';

/** The day of the machines: what they did, do, and will do, as wide as the time it takes. */
export default function DayStrip({ machines }: { machines: readonly Machine[] }) {
  const [day, setDay] = useState<string | null>(null);
  const [isWhole, setWhole] = useState(false);
  const asked = useDay(day);
  const working = atWork(machines);
  if (working.length === 0) return null;
  const shown = asked.data;
  const isToday = shown !== undefined && shown.day === shown.today;
  const hours = shown && (isToday && !isWhole ? nearHours(shown) : dayHours(shown));
  const go = (days: number) => {
    if (!shown) return;
    const next = new Date(Date.parse(shown.day) + days * 86_400_000).toISOString().slice(0, 10);
    setDay(next === shown.today ? null : next);
    setWhole(true);
  };
  return (
    <section aria-label={t('The day')} className="bg-slate px-6 py-2.5 text-[#F4F1E9]">
      <div className="mb-1 flex items-center gap-1">
        <h2 className="w-[116px] font-bold">{shown ? (isToday ? t('Today') : weekdayOf(shown.day)) : t('Today')}</h2>
        <StripButton label={t('The day before')} press={() => go(-1)}>
          <ChevronLeft size={15} aria-hidden />
        </StripButton>
        <StripButton label={t('The day after')} press={() => go(1)}>
          <ChevronRight size={15} aria-hidden />
        </StripButton>
        {!isToday && shown && (
          <StripButton
            press={() => {
              setDay(null);
              setWhole(false);
            }}
          >
            {t('Today')}
          </StripButton>
        )}
        {isToday && (
          <StripButton press={() => setWhole(!isWhole)}>
            {isWhole ? t('The coming hours') : t('The whole day')}
          </StripButton>
        )}
        {asked.isError && <span role="alert">{sentenceOf(asked.error)}</span>}
      </div>
      {shown && hours && (
        <div className="relative">
          <HourScale day={shown} hours={hours} />
          <div className="pointer-events-none absolute top-5 right-0 bottom-0" style={{ left: namesWidth }} aria-hidden>
            {marksIn(hours).map((time) => (
              <div
                key={time}
                className="absolute inset-y-0 w-px bg-slate-raised"
                style={{ left: `${shareAt(time, hours) * 100}%` }}
              />
            ))}
          </div>
          {working.map((machine) => (
            <MachineLane key={machine.id} day={shown} hours={hours} machine={machine} machines={working} />
          ))}
          <NowLine day={shown} hours={hours} />
        </div>
      )}
    </section>
  );
}

function HourScale({ day, hours }: { day: DayAnswer; hours: Span }) {
  const now = shareAt(Date.parse(day.now), hours);
  return (
    <div className="figures relative h-5 text-[12px] text-[#B9C4C1]" style={{ marginLeft: namesWidth }}>
      {marksIn(hours).map((time) => (
        <span
          key={time}
          className="absolute -translate-x-1/2 whitespace-nowrap"
          // What is told beside the time that it is now would lie under that.
          hidden={Math.abs(shareAt(time, hours) - now) < 0.05 || shareAt(time, hours) > 0.985}
          style={{ left: `${shareAt(time, hours) * 100}%` }}
        >
          {timeOf(time)}
        </span>
      ))}
    </div>
  );
}

/** Where the day has come to. */
function NowLine({ day, hours }: { day: DayAnswer; hours: Span }) {
  const share = shareAt(Date.parse(day.now), hours);
  if (share < 0 || share > 1) return null;
  return (
    <div className="pointer-events-none absolute inset-y-0 right-0" style={{ left: namesWidth }}>
      <div className="absolute inset-y-0 w-0.5 bg-flame" style={{ left: `${share * 100}%` }}>
        <span className="figures absolute top-0 -translate-x-1/2 rounded bg-flame px-1.5 text-[12px] font-bold text-slate">
          {timeOf(day.now)}
        </span>
      </div>
    </div>
  );
}

function StripButton(props: { label?: string; press: () => void; children: React.ReactNode }) {
  const { label, press, children } = props;
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      onClick={press}
      className="flex h-6 min-w-6 items-center justify-center rounded-md px-1 text-[12px] hover:bg-slate-raised pointer-coarse:h-11 pointer-coarse:min-w-11"
    >
      {children}
    </button>
  );
}
