import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  addItems,
  newJob,
  type Sheet,
  type Shop,
  setMember,
  setSheet,
  sheetAsStocked,
  shopFromJson,
} from '@lambent/core';
import { Injectable, Logger } from '@nestjs/common';
import { config } from './config.ts';
import { packJob } from './data/pack.ts';
import { ShopService } from './data/shop.service.ts';
import { JobsService } from './jobs/jobs.service.ts';
import { WorkService } from './work/work.service.ts';

const project = 'Heronbrook Seed Library';

interface DemoJob {
  readonly title: string;
  readonly file: string;
  readonly member: string;
  readonly machineId: string;
  readonly materialId: string;
  readonly sheet: Partial<Sheet>;
}

/** The demo jobs, last one first on the Desk. */
const jobs: DemoJob[] = [
  {
    title: 'Estuary relief',
    file: 'estuary-relief.svg',
    member: 'Pavel Anders',
    machineId: 'curlew',
    materialId: 'grey-board-2',
    sheet: {},
  },
  {
    title: 'Seed packet, folding',
    file: 'seed-packet.svg',
    member: 'Wilhelmina Strand',
    machineId: 'wren',
    materialId: 'cotton-card-05',
    sheet: {},
  },
  {
    title: 'Row markers, spring batch',
    file: 'row-markers.svg',
    member: 'Noor Castellan',
    machineId: 'wren',
    materialId: 'birch-ply-3',
    sheet: { x: 14, y: 14 },
  },
];

/** Loads the demo world into an empty shop. */
@Injectable()
export class DemoService {
  private readonly logger = new Logger('Demo');

  constructor(
    private readonly shop: ShopService,
    private readonly jobs: JobsService,
    private readonly work: WorkService,
  ) {}

  async loadIfEmpty(): Promise<void> {
    if ((await this.shop.machines()).length > 0) return;
    const shopFile = join(config.demoFolder, 'shop.json');
    if (!config.demoFolder || !existsSync(shopFile)) return;
    const shop = shopFromJson(JSON.parse(await readFile(shopFile, 'utf8')));
    await this.shop.load(shop);
    for (const job of jobs) await this.addJob(shop, job);
    this.logger.log(`Loaded ${shop.name}: ${jobs.length} jobs.`);
  }

  private async addJob(shop: Shop, { title, file, member, machineId, materialId, sheet }: DemoJob): Promise<void> {
    const path = join(config.demoFolder, 'drawings', file);
    const bytes = await readFile(path);
    const reading = await this.work.readDrawing({ bytes, arrivalId: 'demo' });
    const machine = shop.machines.find(({ id }) => id === machineId);
    const material = shop.materials.find(({ id }) => id === materialId);
    if (!machine || !material) throw new Error(`The demo shop lacks ${machineId} or ${materialId}`);
    const stocked = { ...sheetAsStocked('sheet-1', material, machine), ...sheet };
    const { items, groups } = reading.drawing;
    const document = setSheet(addItems(setMember(newJob(machineId, shop.keys[0].id), member), items, groups), stocked);
    const id = await this.jobs.add(title, project, packJob(document), `Bring in ${file}`);
    await this.jobs.keepOriginal(id, file, bytes);
  }
}
