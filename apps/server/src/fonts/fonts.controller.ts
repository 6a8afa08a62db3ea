import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import type { FontAnswer } from '@lambent/contracts';
import { shippedAsset, shippedFonts } from '@lambent/fonts';
import { Controller, Delete, Get, Header, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes } from '@nestjs/swagger';
import { InjectRepository } from '@nestjs/typeorm';
import type { Request, Response } from 'express';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { FontEntity } from '../data/entities.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { WorkService } from '../work/work.service.ts';

/** The fonts that text is set in: those that ship with Lambent, and those that the shop loaded. */
@Controller('api/fonts')
export class FontsController {
  constructor(
    @InjectRepository(FontEntity) private readonly fonts: Repository<FontEntity>,
    private readonly writes: WriteQueue,
    private readonly work: WorkService,
  ) {}

  @Get()
  async list(): Promise<FontAnswer[]> {
    const loaded = await this.fonts.find({
      select: { id: true, family: true, bold: true, italic: true },
      order: { family: 'ASC' },
    });
    const shipped = shippedFonts().map(
      ({ family, bold, italic, generic }, i): FontAnswer => ({ id: `shipped-${i}`, family, bold, italic, generic }),
    );
    return [...loaded.map((font): FontAnswer => ({ ...font, generic: null })), ...shipped];
  }

  @Get(':id')
  @Header('Cache-Control', 'private, max-age=86400')
  async get(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const shipped = /^shipped-(\d+)$/.exec(id);
    const bytes = shipped ? shippedFonts()[Number(shipped[1])]?.bytes : (await this.fonts.findOneBy({ id }))?.bytes;
    if (!bytes) throw notFound('font');
    response.type('application/octet-stream').send(Buffer.from(bytes));
  }

  /** Loads a font, which is the body: TTF, OTF or WOFF. */
  @Post()
  @ApiConsumes('application/octet-stream')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  async load(@Req() { body }: Request): Promise<FontAnswer> {
    if (!Buffer.isBuffer(body) || body.length === 0) throw new PlainError(400, 'empty-file', 'The font file is empty.');
    const face = await this.work.describeFont(body);
    const id = createHash('sha256').update(body).digest('hex').slice(0, 32);
    await this.writes.do('keepFont', { id, ...face, bytes: body });
    return { id, ...face, generic: null };
  }

  @Delete(':id')
  @HttpCode(204)
  delete(@Param('id') id: string): Promise<void> {
    return this.writes.do('deleteFont', id);
  }
}

/** Files that stand in for what a PDF does not embed. */
@Controller('api/assets')
export class AssetsController {
  @Get(':folder/:name')
  @Header('Cache-Control', 'private, max-age=86400')
  async get(@Param('folder') folder: string, @Param('name') name: string, @Res() response: Response): Promise<void> {
    const path = shippedAsset(`${folder}/${name}`);
    if (!path) throw notFound('file');
    response.type('application/octet-stream').send(await readFile(path).catch(() => Promise.reject(notFound('file'))));
  }
}
