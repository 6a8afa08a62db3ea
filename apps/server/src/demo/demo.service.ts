import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Role } from '@lambent/contracts';
import type { ColourKey } from '@lambent/core/colours';
import {
  firstRun,
  type Item,
  type JobDocument,
  newJob,
  type Pixels,
  type Run,
  type Sheet,
} from '@lambent/core/document';
import { addItems, setMember } from '@lambent/core/edits';
import { decodePicture } from '@lambent/core/formats';
import type { Machine } from '@lambent/core/machine';
import { type Material, type Shop, sheetAsStocked, shopFromJson } from '@lambent/core/recipes';
import { shippedAssets } from '@lambent/fonts';
import { Injectable, Logger } from '@nestjs/common';
import { BackupsService } from '../backup/backups.service.ts';
import { PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { PicturesService } from '../files/pictures.service.ts';
import { JobsService, originalFile } from '../jobs/jobs.service.ts';
import { packJob } from '../jobs/pack.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { MachinesService } from '../machines/machines.service.ts';
import { PeopleService } from '../people/people.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { WorkService } from '../work/work.service.ts';
import { packetDrawer } from './built-jobs.ts';
import { benchPlaque, kingfisherPiece } from './picture-jobs.ts';

const project = 'Heronbrook Seed Library';
/** Who is of the demo shop. */
const people: readonly { readonly name: string; readonly role: Role }[] = [
  { name: 'Ines Varga', role: 'manager' },
  { name: 'Tobiah Okonjo', role: 'operator' },
  { name: 'Wilhelmina Strand', role: 'member' },
  { name: 'Pavel Anders', role: 'member' },
  { name: 'Noor Castellan', role: 'member' },
];

interface DemoJob {
  readonly title: string;
  /** The drawing or the picture that it begins with; null where its parts are built from numbers. */
  readonly file: string | null;
  readonly member: string;
  readonly machineId: string;
  readonly materialId: string;
  readonly sheet: Partial<Sheet>;
  /** Pieces of other stock that lie on the sheet. */
  readonly pieces?: readonly Sheet[];
  readonly runs?: readonly Run[];
  /** What is made of its drawing; nothing where that is the job. */
  readonly made?: (job: JobDocument, machine: Machine, shop: Shop, key: ColourKey) => Promise<JobDocument>;
  readonly built?: (job: JobDocument, sheet: Sheet, material: Material, key: ColourKey) => JobDocument;
  /** What is made of the picture that it begins with; where there is none, its drawing is the job. */
  readonly fromPicture?: (job: JobDocument, picture: Item, key: ColourKey, pixels: Pixels) => JobDocument;
}

/** Where the badges lie in their holder, as `demo/volunteer-badges.mjs` draws it. */
const badges = [0, 1, 2, 3, 4, 5].map(
  (i): Sheet => ({
    id: `badge-${i + 1}`,
    materialId: 'laminate-16',
    x: 43 + (i % 3) * 70,
    y: 52 + Math.floor(i / 3) * 52,
    width: 64,
    height: 30,
    margin: 1.5,
  }),
);

/** The demo jobs, last one first on the Desk. */
const jobs: DemoJob[] = [
  {
    title: 'Drawer for packets',
    file: null,
    member: 'Wilhelmina Strand',
    machineId: 'wren',
    materialId: 'birch-ply-4',
    sheet: {},
    built: packetDrawer,
  },
  {
    title: 'Kingfisher window piece',
    file: 'kingfisher.png',
    member: 'Wilhelmina Strand',
    machineId: 'wren',
    materialId: 'acrylic-clear-3',
    sheet: {},
    fromPicture: (job, picture, _, pixels) => kingfisherPiece(job, picture, pixels),
  },
  {
    title: 'Bench plaque',
    file: 'heron-at-dusk.png',
    member: 'Pavel Anders',
    machineId: 'wren',
    materialId: 'slate-6',
    sheet: {},
    fromPicture: benchPlaque,
  },
  {
    title: 'Estuary relief',
    file: 'estuary-relief.svg',
    member: 'Pavel Anders',
    machineId: 'curlew',
    materialId: 'grey-board-2',
    sheet: {},
  },
  {
    title: 'Volunteer badges',
    file: 'volunteer-badges.svg',
    member: 'Noor Castellan',
    machineId: 'wren',
    materialId: 'grey-board-2',
    sheet: { x: 20, y: 20, width: 260, height: 160 },
    pieces: badges,
    runs: [
      { ...firstRun, name: 'Holder', off: ['engrave'] },
      { ...firstRun, id: 'run-2', name: 'Badges', off: ['cut', 'score'], stock: 'in place' },
    ],
    // What makes lists and codes is loaded for this alone.
    made: async (job, machine, shop, key) =>
      (await import('./badge-list.ts')).badgeList(job, machine, shop, key, 'laminate-16'),
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

/** Where the demo shop writes mails from: they stay in its outbox. */
const mailAddress = 'workshop@ternlane.example';

/** When the demo shop is open: on any day, so that its day has something to show. */
const hours = { opensAt: '08:00', closesAt: '20:00', openDays: [1, 2, 3, 4, 5, 6, 7] };

/** What waits for the machines of the demo. */
const given = ['Row markers, spring batch', 'Seed packet, folding', 'Drawer for packets', 'Estuary relief'];

/** Loads the demo world into an empty shop. */
@Injectable()
export class DemoService {
  private readonly logger = new Logger('Demo');

  constructor(
    private readonly machines: MachinesService,
    private readonly jobs: JobsService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
    private readonly pictures: PicturesService,
    private readonly settings: SettingsService,
    private readonly shop: ShopService,
    private readonly links: MachineLinks,
    private readonly backups: BackupsService,
    private readonly people: PeopleService,
  ) {}

  /** Loads the demo world that the environment names, where there is no machine yet. */
  async loadIfEmpty(): Promise<void> {
    if ((await this.machines.list()).length > 0 || !config.demoFolder) return;
    const shop = await shopIn(config.demoFolder);
    if (shop) await this.load(shop, config.demoFolder);
  }

  /**
   * Loads the demo world into a new shop, its machines as stand-ins that Lambent makes: to look around in.
   * @throws PlainError 409 where there is something in the shop
   */
  async lookAround(): Promise<void> {
    const { machines, materials } = await this.shop.everything();
    if (machines.length > 0 || materials.length > 0 || (await this.jobs.hasAny())) {
      throw new PlainError(
        409,
        'not-empty',
        'There is something in this shop already. The demo would be mixed into it.',
      );
    }
    const shop = await shopIn(config.demoWorld);
    if (!shop) throw new PlainError(409, 'no-demo', 'The demo shop was not installed with this Lambent.');
    const standIns = shop.machines.map(
      (machine): Machine => ({ ...machine, connection: { kind: 'stand-in', factor: 20 } }),
    );
    await this.writes.do('emptyShop');
    await this.load({ ...shop, machines: standIns }, config.demoWorld);
    await this.settings.settle({ isDemo: true });
    for (const machine of standIns) await this.links.follow(machine);
  }

  /**
   * Ends looking around: the demo shop is kept as a backup in the data folder, and one begins with an empty shop.
   * @throws PlainError 409 where it is no demo shop, or a machine has a run
   */
  async leave(): Promise<void> {
    if (!(await this.settings.get()).isDemo)
      throw new PlainError(409, 'no-demo', 'This is no demo shop: nothing in it goes.');
    if (this.links.isAnyBusy)
      throw new PlainError(409, 'machine-runs', 'A machine has a run. Stop it, or wait until it has ended.');
    await this.backups.make(new Date(), 'demo-shop');
    for (const { id } of await this.machines.list()) await this.links.forget(id);
    await this.writes.do('emptyShop');
    this.people.forget();
    await this.writes.do('beginShop');
  }

  private async load(shop: Shop, folder: string): Promise<void> {
    await this.writes.do('loadShop', shop);
    const operators = people.filter(({ role }) => role !== 'member').map(({ name }) => name);
    await this.settings.settle({ shopName: shop.name, people: operators, isSetUp: true, mailAddress, ...hours });
    await this.people.addDemoPeople(people);
    const ids = new Map<string, string>();
    for (const job of jobs) ids.set(job.title, await this.addJob(shop, folder, job));
    await this.giveJobs(ids);
    this.logger.log(`Loaded ${shop.name}: ${jobs.length} jobs.`);
  }

  /** Gives the machines something to do. */
  private async giveJobs(ids: ReadonlyMap<string, string>): Promise<void> {
    for (const { title, machineId } of jobs.filter((job) => given.includes(job.title)).toReversed()) {
      const place = { machineId, beforeJobId: null, notBefore: null };
      await this.writes.do('giveJob', ids.get(title) ?? '', place, null);
    }
  }

  /** @returns its id */
  private async addJob(shop: Shop, folder: string, job: DemoJob): Promise<string> {
    const { title, file, member, machineId, materialId, sheet, pieces = [], runs, built } = job;
    const machine = shop.machines.find(({ id }) => id === machineId);
    const material = shop.materials.find(({ id }) => id === materialId);
    if (!machine || !material) throw new Error(`The demo shop lacks ${machineId} or ${materialId}`);
    const stocked = { ...sheetAsStocked('sheet-1', material, machine), ...sheet };
    const [key] = shop.keys;
    const fresh = {
      ...setMember(newJob(machineId, key.id), member),
      sheets: [stocked, ...pieces],
      ...(runs ? { runs } : {}),
    };
    if (file === null) {
      const document = built?.(fresh, stocked, material, key) ?? fresh;
      return this.jobs.add(title, project, packJob(document), 'Build from numbers', []);
    }
    const bytes = await readFile(join(folder, 'drawings', file));
    const drawn = await this.drawn(fresh, bytes, job, key);
    const document = (await job.made?.(drawn, machine, shop, key)) ?? drawn;
    return this.jobs.add(title, project, packJob(document), `Bring in ${file}`, [originalFile(file, bytes)]);
  }

  /** A job with what a file holds. */
  private async drawn(
    fresh: JobDocument,
    bytes: Buffer,
    { fromPicture }: DemoJob,
    key: ColourKey,
  ): Promise<JobDocument> {
    const reading = await this.work.readDrawing({ bytes, arrivalId: 'demo' });
    for (const picture of reading.pictures) await this.pictures.keep(picture.id, Buffer.from(picture.bytes));
    const { items, groups } = reading.drawing;
    return fromPicture
      ? fromPicture(fresh, items[0], key, await decodePicture(bytes, shippedAssets))
      : addItems(fresh, items, groups);
  }
}

/** The shop of a demo world; null where there is none in that folder. */
async function shopIn(folder: string): Promise<Shop | null> {
  const file = join(folder, 'shop.json');
  return existsSync(file) ? shopFromJson(JSON.parse(await readFile(file, 'utf8'))) : null;
}
