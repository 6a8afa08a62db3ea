import { Controller, Get, Header, HttpCode, Param, Put, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes } from '@nestjs/swagger';
import { InjectRepository } from '@nestjs/typeorm';
import type { Request, Response } from 'express';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { PictureEntity } from '../data/entities.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { WorkService } from '../work/work.service.ts';

/** The pictures that drawings show, each under the SHA-256 of the file it came from. */
@Controller('api/pictures')
export class PicturesController {
  constructor(
    @InjectRepository(PictureEntity) private readonly pictures: Repository<PictureEntity>,
    private readonly writes: WriteQueue,
    private readonly work: WorkService,
  ) {}

  @Get(':id')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async get(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const picture = await this.pictures.findOneBy({ id });
    if (!picture) throw notFound('picture');
    response.type(picture.mediaType).send(picture.bytes);
  }

  /** Keeps a picture, which is the body, PNG or JPEG, under its SHA-256; one that is there already stays. */
  @Put(':id')
  @HttpCode(204)
  @ApiConsumes('application/octet-stream')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  async put(@Param('id') id: string, @Req() { body }: Request): Promise<void> {
    if (!/^[0-9a-f]{64}$/.test(id)) throw new PlainError(400, 'not-an-id', 'A picture’s id is a SHA-256.');
    if (!Buffer.isBuffer(body)) throw new PlainError(400, 'empty-file', 'The picture is empty.');
    const facts = await this.work.describePicture(body).catch((error) => {
      if (error instanceof PlainError && error.code === 'file-refused')
        throw new PlainError(415, 'not-a-picture', error.message);
      throw error;
    });
    if (facts.id !== id) {
      throw new PlainError(
        400,
        'not-its-hash',
        'The picture’s id is not its SHA-256: it was changed on its way. Send it again.',
      );
    }
    await this.writes.do('keepPicture', { ...facts, bytes: body });
  }
}
