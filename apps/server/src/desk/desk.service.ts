import {
  type Awaits,
  type DeskDto,
  type DeskPage,
  type DeskShow,
  type DeskSort,
  deskPageSize,
  deskShows,
  type JobCard,
  type JobState,
  type JobStepAnswer,
  jobStates,
  waitsFor,
} from '@lambent/contracts';
import { Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { DataSource } from 'typeorm';
import { isoOf } from '../common/stored-time.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { plainWords } from '../jobs/plain-words.ts';
import type { EstimateBasis } from './estimate-basis.ts';
import { EstimatesService } from './estimates.service.ts';

/** A job as the database gives it. */
interface Row extends Omit<JobCard, 'lastRun' | 'estimate' | 'sharedOn'> {
  runStatus: string | null;
  runEndedAt: string | null;
  estimatedVersion: number | null;
  materialIds: string | null;
  shopHash: string | null;
  seconds: number | null;
  price: number | null;
  blocks: number;
  warns: number;
  sharedOnId: string | null;
  sharedOnTitle: string | null;
}

type StepRow = Omit<JobStepAnswer, 'with'> & { sharedJobId: string | null; sharedTitle: string | null };

/** Which states each choice of what is shown has. What was put away is shown only when it is asked for. */
const shownStates: Readonly<Record<DeskShow, readonly JobState[]>> = {
  all: jobStates.filter((state) => state !== 'put away'),
  'wants you': jobStates.filter((state) => waitsFor[state] === 'operator'),
  ...(Object.fromEntries(jobStates.map((state) => [state, [state]])) as unknown as Record<JobState, [JobState]>),
};

/** How many jobs stand somewhere, and wait for whose answer. */
interface Standing {
  readonly state: JobState;
  readonly awaits: Awaits;
  readonly count: number;
}

/** Whether a job is shown. An operator is wanted where a sender waits for an answer, and not while one of theirs is waited for. */
function isShown(show: DeskShow, { state, awaits }: Pick<Standing, 'state' | 'awaits'>): boolean {
  if (show === 'wants you' && awaits !== null) return awaits === 'workshop';
  return shownStates[show].includes(state);
}

/** The same, asked of the database. */
function whereShown(show: DeskShow): { where: string; values: readonly string[] } {
  const values = shownStates[show];
  const where = `jobs.state IN (${values.map(() => '?').join(', ')})`;
  if (show !== 'wants you') return { where, values };
  return { where: `(jobs.awaits = 'workshop' OR jobs.awaits IS NULL AND ${where})`, values };
}

/** What a job costs: as it was agreed, else its share of what it is burnt with, else as it was worked out. */
const priceColumn = 'coalesce(agreed.total, part.price, estimates.price)';

/** What each sort goes by. Empty values stand last, whichever way it goes. */
const sortColumns: Readonly<Record<DeskSort, string>> = {
  changed: 'jobs.changed',
  title: 'jobs.title COLLATE NOCASE',
  whose: "nullif(jobs.whose, '') COLLATE NOCASE",
  material: '(SELECT position FROM materials WHERE materials.id = jobs.materialId)',
  time: 'estimates.seconds',
  price: priceColumn,
  'wanted by': 'jobs.wantedBy',
  state: `CASE jobs.state ${jobStates.map((state, i) => `WHEN '${state}' THEN ${i}`).join(' ')} END`,
};

/** The Desk: all jobs of the shop, by what they wait for. */
@Injectable()
export class DeskService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly estimates: EstimatesService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /** One page of the Desk as it is shown: what of it is not worked out yet is begun, and told by events. */
  async shown(wish: DeskDto): Promise<DeskPage> {
    const page = await this.page(wish);
    this.estimates.want(page.jobs.filter(wantsEstimate));
    return page;
  }

  /** One page of jobs. */
  async page(wish: DeskDto): Promise<DeskPage> {
    const { show = 'all', seek = '', sort = 'changed', down, page = 1, size = deskPageSize } = wish;
    const found = await this.matching(seek);
    const shown = whereShown(show);
    const column = sortColumns[sort];
    const [rows, standing, basis]: [Row[], Standing[], EstimateBasis] = await Promise.all([
      this.database.query(
        `SELECT jobs.id, jobs.title, jobs.project, jobs.version, jobs.updatedAt, jobs.machineId, jobs.materialId,
           jobs.state, jobs.stateSince, jobs.awaits, jobs.whose, jobs.wantedBy, coalesce(drawings.itemCount, 0) AS itemCount,
           runs.status AS runStatus, runs.endedAt AS runEndedAt, estimates.version AS estimatedVersion,
           estimates.materialIds, estimates.shopHash, estimates.seconds, ${priceColumn} AS price, estimates.blocks,
           estimates.warns, part.sharedJobId AS sharedOnId, shared.title AS sharedOnTitle,
           (SELECT count(*) FROM parts_in_place WHERE parts_in_place.sharedJobId = jobs.id) AS shares
         FROM jobs
         LEFT JOIN estimates ON estimates.jobId = jobs.id
         LEFT JOIN quotes AS agreed
           ON agreed.jobId = jobs.id AND agreed.acceptedAt IS NOT NULL AND agreed.withdrawnAt IS NULL
         LEFT JOIN parts_in_place AS part ON part.jobId = jobs.id
         LEFT JOIN jobs AS shared ON shared.id = part.sharedJobId
         LEFT JOIN versions ON versions.jobId = jobs.id AND versions.number = jobs.version
         LEFT JOIN drawings ON drawings.hash = versions.drawingHash
         LEFT JOIN runs ON runs.sequence = (SELECT max(sequence) FROM runs WHERE runs.jobId = jobs.id)
         WHERE jobs.deletedAt IS NULL AND ${shown.where} AND ${found.where}
         ORDER BY ${column} IS NULL, ${column} ${(down ?? sort === 'changed') ? 'DESC' : 'ASC'}, jobs.changed DESC
         LIMIT ? OFFSET ?`,
        [...shown.values, ...found.values, size, (page - 1) * size],
      ),
      this.database.query(
        `SELECT state, awaits, count(*) AS count FROM jobs WHERE deletedAt IS NULL AND ${found.where} GROUP BY state, awaits`,
        found.values,
      ),
      this.estimates.basis(),
    ]);
    const known = rows.map((row) => (basis.isCurrent(row) ? row : { ...row, estimatedVersion: null }));
    const countOf = (choice: DeskShow) =>
      standing.reduce((sum, group) => (isShown(choice, group) ? sum + group.count : sum), 0);
    const counts = Object.fromEntries(deskShows.map((choice) => [choice, countOf(choice)])) as DeskPage['counts'];
    return { jobs: known.map(cardOf), total: counts[show], counts };
  }

  /** Moves a job to another state. @throws PlainError 404 where there is no such job */
  async move(id: string, state: JobState, mover: string | null): Promise<void> {
    await this.writes.do('moveJob', id, state, mover);
    this.hub.say({ type: 'desk', jobId: id });
  }

  /** The steps of a job through the shop, the last first. */
  async steps(id: string): Promise<JobStepAnswer[]> {
    const rows: StepRow[] = await this.database.query(
      `SELECT job_steps.id, job_steps.state, job_steps.at, job_steps."by", job_steps.sharedJobId, jobs.title AS sharedTitle
       FROM job_steps LEFT JOIN jobs ON jobs.id = job_steps.sharedJobId
       WHERE job_steps.jobId = ? ORDER BY job_steps.id DESC LIMIT 200`,
      [id],
    );
    return rows.map(({ sharedJobId, sharedTitle, ...row }) => ({
      ...row,
      at: isoOf(row.at),
      with: sharedJobId === null ? null : { jobId: sharedJobId, title: sharedTitle ?? '' },
    }));
  }

  /** Which jobs have all words that are sought, each in itself or in the name of its material. */
  private async matching(seek: string): Promise<{ where: string; values: string[] }> {
    const words = plainWords(seek).split(/\s+/).filter(Boolean);
    if (words.length === 0) return { where: 'TRUE', values: [] };
    const materials: { id: string; name: string }[] = await this.database.query('SELECT id, name FROM materials');
    const clauses = words.map((word) => {
      const ids = materials.filter(({ name }) => plainWords(name).includes(word)).map(({ id }) => id);
      const named = ids.length > 0 ? ` OR jobs.materialId IN (${ids.map(() => '?').join(', ')})` : '';
      return { where: `(instr(jobs.words, ?) > 0${named})`, values: [word, ...ids] };
    });
    return { where: clauses.map(({ where }) => where).join(' AND '), values: clauses.flatMap(({ values }) => values) };
  }
}

/** Whether what a job takes is still asked for. */
function wantsEstimate({ estimate, state }: JobCard): boolean {
  return estimate === null && waitsFor[state] !== 'nobody';
}

function cardOf(row: Row): JobCard {
  const { runStatus, runEndedAt, updatedAt, stateSince, estimatedVersion, materialIds: _, shopHash: __, ...rest } = row;
  const { seconds, price, blocks, warns, sharedOnId, sharedOnTitle, ...card } = rest;
  return {
    ...card,
    updatedAt: isoOf(updatedAt),
    stateSince: isoOf(stateSince),
    lastRun: runStatus === null ? null : { status: runStatus, endedAt: runEndedAt && isoOf(runEndedAt) },
    sharedOn: sharedOnId === null ? null : { jobId: sharedOnId, title: sharedOnTitle ?? '' },
    estimate: estimatedVersion === null ? null : { seconds, price, blocks, warns },
  };
}
