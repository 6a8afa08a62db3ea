import { Injectable, Logger } from '@nestjs/common';
import { PlainError } from '../common/plain-error.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { PicturesService } from '../files/pictures.service.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { WorkService } from '../work/work.service.ts';
import { EstimateBasis } from './estimate-basis.ts';

/** A version of a job. */
interface Wanted {
  readonly id: string;
  readonly version: number;
}

/** Works out what jobs take and cost, one after the other, and says so when one is known. */
@Injectable()
export class EstimatesService {
  private readonly log = new Logger('Estimates');
  /** What is still to be worked out, by job. */
  private readonly waiting = new Map<string, Wanted>();
  private isWorking = false;

  constructor(
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly settings: SettingsService,
    private readonly files: PicturesService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /** How the shop is now: machines, recipes, keys and the price list, which times and prices go by. */
  async basis(): Promise<EstimateBasis> {
    const [shop, { pricing }] = await Promise.all([this.shop.everything(), this.settings.get()]);
    return new EstimateBasis(shop, pricing);
  }

  /** Has jobs worked out; those that were asked for last come first. */
  want(jobs: readonly Wanted[]): void {
    const before = [...this.waiting.values()];
    this.waiting.clear();
    for (const job of [...jobs, ...before]) if (!this.waiting.has(job.id)) this.waiting.set(job.id, job);
    if (!this.isWorking) void this.workOn();
  }

  private async workOn(): Promise<void> {
    this.isWorking = true;
    try {
      for (;;) {
        const [next] = this.waiting.values();
        if (!next) return;
        this.waiting.delete(next.id);
        await this.estimate(next).catch((error) => this.log.warn(`${next.id}: ${error.message}`));
      }
    } finally {
      this.isWorking = false;
    }
  }

  /** What a version of a job takes and costs, worked out now. @throws PlainError 404 where there is no such job */
  async workOut(id: string, version: number) {
    const [job, basis] = await Promise.all([this.jobs.packed(id, version), this.basis()]);
    const { shop, pricing } = basis;
    const estimate = await this.work
      .estimate({ job, shop, pricing }, async (file) => (await this.files.get(file)).bytes)
      .catch((error) => {
        // What cannot be planned is known not to be: it would be tried again each time that the Desk is opened.
        if (error instanceof PlainError && error.status === 422)
          return { seconds: null, price: null, parts: [], blocks: 1, warns: 0 };
        throw error;
      });
    return { estimate, job, basis };
  }

  private async estimate({ id, version }: Wanted): Promise<void> {
    const { estimate, job, basis } = await this.workOut(id, version);
    const { parts: _, ...figures } = estimate;
    const { machineId, sheets } = job.settings;
    const materialIds = [...new Set(sheets.map(({ materialId }) => materialId))];
    const shopHash = basis.hashFor(machineId, materialIds);
    await this.writes.do('keepEstimate', { jobId: id, version, materialIds, shopHash, ...figures });
    this.hub.say({ type: 'desk', jobId: id });
  }
}
