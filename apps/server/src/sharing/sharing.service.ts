import { createHash, randomUUID } from 'node:crypto';
import type {
  JobSharing,
  LeftOutReason,
  SharedPartAnswer,
  ShareSheetsDto,
  SharingGroup,
  SheetsShared,
} from '@lambent/contracts';
import { sharesOf } from '@lambent/core/sharing';
import { Injectable, Logger } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { DataSource } from 'typeorm';
import { PlainError } from '../common/plain-error.ts';
import { isoOf } from '../common/stored-time.ts';
import { WriteQueue } from '../data/write-queue.ts';
import type { EstimateBasis } from '../desk/estimate-basis.ts';
import { EstimatesService } from '../desk/estimates.service.ts';
import { EventHub } from '../events/event-hub.ts';
import { PicturesService } from '../files/pictures.service.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import type { SharedSheets } from '../work/share-sheets.ts';
import { WorkService } from '../work/work.service.ts';
import { type SharedPlace, sharedPlaceOf } from './parts-in-place.ts';
import { type ReadyGroup, type ReadyJob, readyGroups } from './ready-jobs.ts';

/** As many layouts are kept, those that were worked out last. */
const mostKept = 20;

/** What came of working a layout out. */
type Outcome = { readonly done: SharedSheets } | { readonly trouble: string };

/** Jobs that are ready, laid onto sheets that they share. */
@Injectable()
export class SharingService {
  private readonly log = new Logger('Sharing');
  /** What was worked out, by print. */
  private readonly known = new Map<string, Outcome>();
  private readonly waiting = new Map<string, { group: ReadyGroup; basis: EstimateBasis }>();
  private isWorking = false;

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly estimates: EstimatesService,
    private readonly jobs: JobsService,
    private readonly files: PicturesService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /** What could be burnt together. What is not worked out yet is begun, and told by events. */
  async groups(): Promise<SharingGroup[]> {
    const basis = await this.estimates.basis();
    const ready = await readyGroups(this.database, basis);
    const unknown = ready.flatMap(({ jobs }) => jobs.filter(({ isCurrent }) => !isCurrent));
    this.estimates.want(unknown.map(({ id, version }) => ({ id, version })));
    this.waiting.clear();
    const answers = ready.map((group): SharingGroup => {
      const print = printOf(group, basis);
      const outcome = this.known.get(print);
      if (!outcome && group.jobs.every(({ isCurrent }) => isCurrent)) this.waiting.set(print, { group, basis });
      return answerOf(group, print, outcome);
    });
    if (!this.isWorking) void this.workOn();
    return answers;
  }

  /**
   * Lays jobs out as they were shown.
   * @throws PlainError 409 where that is no longer how they would lie
   */
  async layOut({ print, title, by }: ShareSheetsDto): Promise<SheetsShared> {
    const basis = await this.estimates.basis();
    const group = (await readyGroups(this.database, basis)).find((ready) => printOf(ready, basis) === print);
    const outcome = this.known.get(print);
    if (!group || !outcome || !('done' in outcome)) {
      const words =
        'A job, the stock or the machine has changed meanwhile. Nothing was laid out: look at how it would be now.';
      throw new PlainError(409, 'sharing-changed', words);
    }
    const { version, parts, areasMm2, seconds, price, blocks, warns } = outcome.done;
    const jobs = laidOf(group, outcome.done);
    const weights = jobs.map(({ seconds }, i) => ({ seconds: seconds ?? 0, areaMm2: areasMm2[i] }));
    const shares = basis.pricing.currency === '' ? null : sharesOf(parts, weights);
    const laid = jobs.map((job, i) => {
      const { id: jobId, version, copies } = job;
      return { jobId, version, copies, price: shares?.[i] ?? null };
    });
    const id = randomUUID();
    await this.writes.do('layShared', { id, title, isReady: blocks === 0, by: by?.trim() || null }, version, laid);
    const materialIds = [group.materialId];
    const shopHash = basis.hashFor(group.machineId, materialIds);
    const figures = { seconds, price, blocks, warns };
    await this.writes.do('keepEstimate', { jobId: id, version: 1, materialIds, shopHash, ...figures });
    for (const jobId of [id, ...laid.map((part) => part.jobId)]) this.hub.say({ type: 'desk', jobId });
    return { jobId: id };
  }

  /** On whose sheets a job lies, and what lies on its own. */
  async ofJob(id: string): Promise<JobSharing> {
    const [place, parts]: [SharedPlace | null, PartRow[]] = await Promise.all([
      sharedPlaceOf(this.database, id),
      this.database.query(
        `SELECT part.jobId, jobs.title, jobs.whose, jobs.state, part.copies, part.price, part.leftAt,
           jobs.version > part.version OR jobs.deletedAt IS NOT NULL AS isChanged
         FROM shared_parts AS part JOIN jobs ON jobs.id = part.jobId WHERE part.sharedJobId = ? ORDER BY part.place`,
        [id],
      ),
    ]);
    return {
      sharedJob: place && { jobId: place.sharedJobId, title: place.title, state: place.state },
      parts: parts.map((part) => ({
        ...part,
        isChanged: part.isChanged === 1,
        leftAt: part.leftAt && isoOf(part.leftAt),
      })),
    };
  }

  private async workOn(): Promise<void> {
    this.isWorking = true;
    try {
      for (;;) {
        const [next] = this.waiting;
        if (!next) return;
        const [print, { group, basis }] = next;
        this.waiting.delete(print);
        this.keep(print, await this.workOut(group, basis));
        this.hub.say({ type: 'desk', jobId: group.jobs[0].id });
      }
    } finally {
      this.isWorking = false;
    }
  }

  private async workOut(group: ReadyGroup, { shop, pricing }: EstimateBasis): Promise<Outcome> {
    try {
      const parts = await Promise.all(
        group.jobs.map(async ({ id, title, whose, version, copies }) => {
          const name = whose ? `${title} (${whose})` : title;
          return { name, copies, job: await this.jobs.packed(id, version) };
        }),
      );
      const picture = async (file: string) => (await this.files.get(file)).bytes;
      return { done: await this.work.shareSheets({ parts, shop, pricing }, picture) };
    } catch (error) {
      if (error instanceof PlainError) return { trouble: error.message };
      this.log.error(`${group.jobs.length} jobs on ${group.materialId}`, error);
      return { trouble: 'These jobs could not be laid out. What went wrong is in the log of the server.' };
    }
  }

  private keep(print: string, outcome: Outcome): void {
    this.known.set(print, outcome);
    const [oldest] = this.known.keys();
    if (this.known.size > mostKept) this.known.delete(oldest);
  }
}

type PartRow = Omit<SharedPartAnswer, 'isChanged'> & { isChanged: number };

/** Names a layout: another one where a job, the machine, the stock or the price list has changed. */
function printOf({ machineId, materialId, jobs }: ReadyGroup, basis: EstimateBasis): string {
  const material = basis.shop.materials.find(({ id }) => id === materialId);
  const what = [
    jobs.map(({ id, version, copies }) => [id, version, copies]),
    basis.hashFor(machineId, [materialId]),
    material?.stock?.map(({ id, count }) => [id, count]),
  ];
  return createHash('sha256').update(JSON.stringify(what)).digest('hex').slice(0, 32);
}

/** The jobs of a group that are laid out. */
function laidOf({ jobs }: ReadyGroup, { laid }: SharedSheets): ReadyJob[] {
  return laid.map((i) => jobs[i]);
}

function answerOf(group: ReadyGroup, print: string, outcome: Outcome | undefined): SharingGroup {
  const { machineId, materialId, jobs, leftOut } = group;
  const done = outcome && 'done' in outcome ? outcome.done : null;
  const laid = done ? laidOf(group, done) : jobs;
  const left: { job: ReadyJob; why: LeftOutReason }[] = [
    ...jobs.filter((job) => !laid.includes(job)).map((job) => ({ job, why: 'sheet' as const })),
    ...leftOut.map(({ why, ...job }) => ({ job, why })),
  ];
  return {
    machineId,
    materialId,
    jobs: laid.map(({ id: jobId, title, whose, copies }) => ({ jobId, title, whose, copies })),
    leftOut: left.map(({ job: { id: jobId, title }, why }) => ({ jobId, title, why })),
    layout: done && {
      print,
      sheets: done.sheets.map(({ pieces, ...sheet }) => ({
        ...sheet,
        pieces: pieces.map(({ part, outline }) => ({ jobId: laid[part].id, outline })),
      })),
      seconds: done.seconds,
      price: done.price,
      blocks: done.blocks,
      warns: done.warns,
    },
    trouble: outcome && 'trouble' in outcome ? outcome.trouble : null,
  };
}
