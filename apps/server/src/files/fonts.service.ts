import { createHash } from 'node:crypto';
import type { FontAnswer } from '@lambent/contracts';
import { shippedFonts } from '@lambent/fonts';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { WorkService } from '../work/work.service.ts';
import { FontEntity } from './file.entities.ts';

/** The fonts that text is set in: those that ship with Lambent, and those that the shop loaded. */
@Injectable()
export class FontsService {
  constructor(
    @InjectRepository(FontEntity) private readonly rows: Repository<FontEntity>,
    private readonly writes: WriteQueue,
    private readonly work: WorkService,
  ) {}

  async list(): Promise<FontAnswer[]> {
    const loaded = await this.rows.find({
      select: { id: true, family: true, bold: true, italic: true },
      order: { family: 'ASC' },
    });
    const shipped = shippedFonts().map(
      ({ family, bold, italic, generic }, i): FontAnswer => ({ id: `shipped-${i}`, family, bold, italic, generic }),
    );
    return [...loaded.map((font): FontAnswer => ({ ...font, generic: null })), ...shipped];
  }

  /** The bytes of a font. @throws PlainError 404 */
  async bytes(id: string): Promise<Uint8Array> {
    const shipped = /^shipped-(\d+)$/.exec(id);
    const bytes = shipped ? shippedFonts()[Number(shipped[1])]?.bytes : (await this.rows.findOneBy({ id }))?.bytes;
    if (!bytes) throw notFound('font');
    return bytes;
  }

  /** Keeps a font of the shop: TTF, OTF or WOFF. @throws PlainError 400 or 415 where it is none */
  async load(body: unknown): Promise<FontAnswer> {
    if (!Buffer.isBuffer(body) || body.length === 0) throw new PlainError(400, 'empty-file', 'The font file is empty.');
    const face = await this.work.describeFont(body);
    const id = createHash('sha256').update(body).digest('hex').slice(0, 32);
    await this.writes.do('keepFont', { id, ...face, bytes: body });
    return { id, ...face, generic: null };
  }

  delete(id: string): Promise<void> {
    return this.writes.do('deleteFont', id);
  }
}
