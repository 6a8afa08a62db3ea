import { createHash, randomUUID } from 'node:crypto';
import type { JobFileLook, JobFileTaken, TakeJobFileDto } from '@lambent/contracts';
import { keyInShop } from '@lambent/core/colours';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { PlainError } from '../common/plain-error.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { FontsService } from '../files/fonts.service.ts';
import { PicturesService } from '../files/pictures.service.ts';
import { OriginalEntity } from '../jobs/job.entities.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import { pictureIdsIn } from '../jobs/picture-ids.ts';
import { MachineKeeper } from '../machines/machine-keeper.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { WorkService } from '../work/work.service.ts';
import type { JobFileParts, Piece } from './job-file.ts';

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

/** Jobs as files of their own: out of this shop, and into it. */
@Injectable()
export class JobFilesService {
  constructor(
    @InjectRepository(OriginalEntity) private readonly originals: Repository<OriginalEntity>,
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly pictures: PicturesService,
    private readonly fonts: FontsService,
    private readonly settings: SettingsService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
    private readonly machines: MachineKeeper,
  ) {}

  /** A job as it is by now, with all that it needs elsewhere. @throws PlainError 404 */
  async make(id: string): Promise<{ name: string; bytes: Uint8Array }> {
    const { title, project, document } = JSON.parse((await this.jobs.answer(id)).toString('utf8'));
    const { machines, keys, materials } = await this.shop.everything();
    const { shopName } = await this.settings.get();
    const machine = machines.find((known) => known.id === document.machineId);
    const key = keyInShop(keys, document.keyId);
    if (!machine || !key)
      throw new PlainError(409, 'no-machine', 'The machine of this job is not the shop’s any more.');
    const used = new Set(document.sheets.map(({ materialId }: { materialId: string }) => materialId));
    const pieces: Piece[] = [];
    const put = (path: string, bytes: Uint8Array) => {
      pieces.push({ path, bytes });
      return { path, sha256: sha256(bytes) };
    };
    const originals = (await this.originals.find({ where: { jobId: id }, order: { id: 'ASC' } })).map((row) => ({
      id: row.id,
      name: row.name,
      ...put(`originals/${row.id}`, row.bytes),
    }));
    const drawing = JSON.stringify(document.drawing);
    const pictures = [];
    for (const pictureId of pictureIdsIn(drawing)) {
      const { mediaType, bytes } = await this.pictures.get(pictureId);
      pictures.push({ mediaType, ...put(`pictures/${pictureId}`, bytes) });
    }
    const families = new Set(
      Array.from(drawing.matchAll(/"family":("(?:[^"\\]|\\.)*")/g), ([, word]) =>
        String(JSON.parse(word)).toLowerCase(),
      ),
    );
    const fonts = [];
    for (const font of await this.fonts.list()) {
      if (font.generic !== null || !families.has(font.family.toLowerCase())) continue;
      const { id: fontId, family, bold, italic } = font;
      fonts.push({ id: fontId, family, bold, italic, ...put(`fonts/${fontId}`, await this.fonts.bytes(fontId)) });
    }
    const parts: JobFileParts = {
      title,
      project,
      madeAt: new Date().toISOString(),
      shopName,
      document,
      // How it is reached here is nobody else's business.
      machine: { ...machine, connection: null },
      key,
      materials: materials
        .filter((material) => used.has(material.id))
        .map(({ stock: _, ...material }) => ({
          ...material,
          recipes: material.recipes.filter(({ machineId }) => machineId === machine.id),
        })),
      originals,
      pictures,
      fonts,
    };
    const name = `${title.replace(/[^\p{L}\p{N} _-]+/gu, ' ').trim() || 'job'}.lambent-job.zip`;
    return { name, bytes: await this.work.packJobFile({ parts, pieces }) };
  }

  /** What is in the file of a job, and what of it this shop has. @throws PlainError 422 where it is none */
  async look(bytes: Uint8Array): Promise<JobFileLook> {
    const { list, version, fonts } = await this.work.readJobFile(bytes);
    const { machines, keys, materials } = await this.shop.everything();
    const known = new Set((await this.fonts.list()).map(({ family }) => family.toLowerCase()));
    const { id, name, bedWidth, bedHeight } = list.machine;
    return {
      title: list.title,
      project: list.project,
      madeAt: list.madeAt,
      shopName: list.shopName,
      items: version.drawing.itemCount,
      machine: { id, name, bedWidth, bedHeight, isHere: machines.some((machine) => machine.id === id) },
      key: { name: list.key.name, isHere: keys.some((key) => key.id === list.key.id) },
      materials: list.materials.map((material) => ({
        name: material.name,
        thicknessMm: material.thicknessMm,
        isHere: materials.some((other) => other.id === material.id),
        recipes: material.recipes.length,
      })),
      newFonts: [...new Set(fonts.map(({ family }) => family))].filter((family) => !known.has(family.toLowerCase())),
      originals: list.originals.map((original) => original.name),
      pictures: list.pictures.length,
    };
  }

  /** Puts a job on the Desk as its file has it. @throws PlainError 422 where it is none; nothing is changed then */
  async take(bytes: Uint8Array, { by: author, machineId }: TakeJobFileDto): Promise<JobFileTaken> {
    const file = await this.work.readJobFile(bytes);
    const id = randomUUID();
    const notes = await this.writes.do('takeJobFile', file, { id, by: author, machineId: machineId ?? null });
    await this.machines.takeUpNew();
    return { id, notes };
  }
}
