import type {
  DayAnswer,
  DayBlock,
  DayMachine,
  DayRun,
  DaySpan,
  GiveJobDto,
  JobState,
  RunStatus,
} from '@lambent/contracts';
import { earliestFit, type Span, scheduleQueue, type WorkingTimes } from '@lambent/core/day';
import { atWork } from '@lambent/core/machine';
import { Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { DataSource } from 'typeorm';
import { isoOf, keptTime } from '../common/stored-time.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EstimatesService } from '../desk/estimates.service.ts';
import { EventHub } from '../events/event-hub.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { dayOf, openingsFrom, spanOfDay } from './opening-hours.ts';

/** A job that waits for its machine, with what was worked out of it. */
interface WaitingRow {
  jobId: string;
  title: string;
  whose: string;
  state: JobState;
  wantedBy: string | null;
  machineId: string;
  version: number;
  notBefore: string | null;
  seen: number;
  estimatedVersion: number | null;
  materialIds: string | null;
  shopHash: string | null;
  seconds: number | null;
  /** What of this version has been burnt, or burns, in s as planned. */
  begunS: number;
}

interface RunRow {
  runId: string;
  jobId: string;
  title: string;
  machineId: string;
  status: RunStatus;
  startedAt: string;
  endedAt: string | null;
  plannedS: number;
  machineS: number;
}

/** What a machine was given, and when it does it. */
interface Planned {
  readonly waiting: readonly (WaitingRow & { readonly leftS: number | null })[];
  readonly spans: readonly Span[];
  /** When it is done with what it runs now. */
  readonly free: number;
}

/** For so many days it is worked out when the shop is open. */
const openDays = 60;
/** Kept free for a job of which it is not known how long it takes. */
const unknownS = 30 * 60;
/** Less is left of a job that is burnt, or nearly so. */
const nothingS = 0.5;

/** What the machines of the shop do today, and when they do what they were given. */
@Injectable()
export class DayService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly estimates: EstimatesService,
    private readonly settings: SettingsService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /** A day, today as usual, and all that waits. What of it has no time yet is begun, and told by events. */
  async shown(wanted: string | undefined): Promise<DayAnswer> {
    const now = Date.now();
    const settings = await this.settings.get();
    const today = dayOf(now, settings);
    const day = wanted ?? today;
    const whole = spanOfDay(day, settings);
    const times = timesOf(settings, now);
    const [planned, runs] = await Promise.all([this.planned(now, times), this.runsOf(whole)]);
    const due = (wantedBy: string | null) =>
      wantedBy ? spanOfDay(wantedBy, settings).until : Number.POSITIVE_INFINITY;
    const machines = [...planned].map(([machineId, { waiting, spans, free }]): DayMachine => {
      const own = runs.filter((run) => run.machineId === machineId).map((run) => runOf(run, free));
      const ofDay = own.filter(({ from, until }) => Date.parse(from) < whole.until && Date.parse(until) >= whole.from);
      const blocks = waiting.map(({ jobId, title, whose, state, leftS, notBefore, wantedBy, seen }, i): DayBlock => {
        const time = { ...isoSpan(spans[i]), notBefore: notBefore && isoOf(notBefore) };
        return {
          jobId,
          title,
          whose,
          state,
          seconds: leftS,
          ...time,
          wantedBy,
          isLate: spans[i].until > due(wantedBy),
          seen,
        };
      });
      const freeAt = new Date(spans.at(-1)?.until ?? free).toISOString();
      return { machineId, runs: ofDay, running: own.find(({ status }) => isOn(status)) ?? null, blocks, freeAt };
    });
    return {
      day,
      today,
      now: new Date(now).toISOString(),
      whole: isoSpan(whole),
      openings: times.openings.map(isoSpan),
      setUpMinutes: settings.setUpMinutes,
      machines,
    };
  }

  /** When a job that takes so long could be burnt on a machine, after all that it was given; null where there is no such machine. */
  async earliestEnd(machineId: string, seconds: number): Promise<Date | null> {
    const now = Date.now();
    const times = timesOf(await this.settings.get(), now);
    const machine = (await this.planned(now, times)).get(machineId);
    if (!machine) return null;
    const job = { takesMs: Math.round(seconds * 1000), notBefore: null };
    return new Date(earliestFit(job, machine.spans, machine.free, times).span.until);
  }

  /** When the jobs that were given to machines will be burnt, by their ids. */
  async ends(): Promise<ReadonlyMap<string, Date>> {
    const now = Date.now();
    const planned = await this.planned(now, timesOf(await this.settings.get(), now));
    return new Map(
      [...planned.values()].flatMap(({ waiting, spans }) =>
        waiting.map(({ jobId }, i): [string, Date] => [jobId, new Date(spans[i].until)]),
      ),
    );
  }

  /** Gives a job to a machine. @throws as the write `giveJob` does */
  async give(jobId: string, { machineId, beforeJobId, notBefore, seen }: GiveJobDto): Promise<void> {
    const place = { machineId, beforeJobId: beforeJobId ?? null, notBefore: notBefore ? new Date(notBefore) : null };
    const version = await this.writes.do('giveJob', jobId, place, seen);
    if (version !== null) this.hub.say({ type: 'job', jobId, version });
    this.hub.say({ type: 'desk', jobId });
  }

  /** Takes a job off the day. @throws as the write `takeOffDay` does */
  async takeOff(jobId: string, seen: number): Promise<void> {
    await this.writes.do('takeOffDay', jobId, seen);
    this.hub.say({ type: 'desk', jobId });
  }

  /** What waits for each machine at work, and when it is burnt. */
  private async planned(now: number, times: WorkingTimes): Promise<ReadonlyMap<string, Planned>> {
    const [rows, running, basis] = await Promise.all([this.waiting(), this.runsOf(null), this.estimates.basis()]);
    const known = rows.map((row) => {
      const isKnown = basis.isCurrent(row);
      const seconds = isKnown ? row.seconds : null;
      return { ...row, isKnown, leftS: seconds === null ? null : seconds - row.begunS };
    });
    this.estimates.want(known.filter(({ isKnown }) => !isKnown).map(({ jobId: id, version }) => ({ id, version })));
    return new Map(
      atWork(basis.shop.machines).map(({ id }) => {
        const nowOn = running.find(({ machineId, status }) => machineId === id && isOn(status));
        const free = now + Math.max(0, nowOn ? nowOn.plannedS - nowOn.machineS : 0) * 1000;
        const waiting = known.filter(
          ({ machineId, leftS }) => machineId === id && (leftS === null || leftS > nothingS),
        );
        const queue = waiting.map(({ leftS, notBefore }) => ({
          takesMs: Math.round((leftS ?? unknownS) * 1000),
          notBefore: notBefore ? Date.parse(isoOf(notBefore)) : null,
        }));
        return [id, { waiting, spans: scheduleQueue(queue, free, times), free }];
      }),
    );
  }

  private waiting(): Promise<WaitingRow[]> {
    return this.database.query(
      `SELECT day_blocks.jobId, jobs.title, jobs.whose, jobs.state, jobs.wantedBy, jobs.machineId, jobs.version,
         day_blocks.notBefore, day_blocks.seen, estimates.version AS estimatedVersion, estimates.materialIds,
         estimates.shopHash, estimates.seconds,
         (SELECT coalesce(sum(plannedS), 0) FROM (
           SELECT max(plannedS) AS plannedS FROM runs
           WHERE runs.jobId = jobs.id AND runs.version = jobs.version AND runs.status IN ('done', 'running', 'held')
           GROUP BY runs.jobRunId)) AS begunS
       FROM day_blocks
       JOIN jobs ON jobs.id = day_blocks.jobId AND jobs.deletedAt IS NULL
       LEFT JOIN estimates ON estimates.jobId = jobs.id
       ORDER BY day_blocks.place, jobs.changed`,
    );
  }

  /** Runs that have not ended, and those that began within a stretch of time. */
  private runsOf(span: Span | null): Promise<RunRow[]> {
    const began = span ? ' OR (runs.startedAt >= ? AND runs.startedAt < ?)' : '';
    return this.database.query(
      `SELECT runs.id AS runId, runs.jobId, jobs.title, runs.machineId, runs.status, runs.startedAt, runs.endedAt,
         runs.plannedS, runs.machineS
       FROM runs JOIN jobs ON jobs.id = runs.jobId
       WHERE runs.endedAt IS NULL${began} ORDER BY runs.sequence`,
      span ? [keptTime(span.from), keptTime(span.until)] : [],
    );
  }
}

function timesOf(settings: Awaited<ReturnType<SettingsService['get']>>, now: number): WorkingTimes {
  return { openings: openingsFrom(now, openDays, settings), setUpMs: settings.setUpMinutes * 60_000 };
}

function runOf({ runId, jobId, title, status, startedAt, endedAt, plannedS }: RunRow, free: number): DayRun {
  const from = isoOf(startedAt);
  return {
    runId,
    jobId,
    title,
    status,
    plannedS,
    from,
    until: endedAt ? isoOf(endedAt) : new Date(free).toISOString(),
  };
}

function isOn(status: RunStatus): boolean {
  return status === 'running' || status === 'held';
}

function isoSpan({ from, until }: Span): DaySpan {
  return { from: new Date(from).toISOString(), until: new Date(until).toISOString() };
}
