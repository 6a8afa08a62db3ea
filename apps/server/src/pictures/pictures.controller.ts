import { describePicture, FileRefused } from '@lambent/core';
import { Controller, Get, Header, HttpCode, Param, Put, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes } from '@nestjs/swagger';
import { InjectRepository } from '@nestjs/typeorm';
import type { Request, Response } from 'express';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/errors.ts';
import { PictureEntity } from '../data/entities.ts';

/** The pictures that drawings show, each under the SHA-256 of the file it came from. */
@Controller('api/pictures')
export class PicturesController {
  constructor(@InjectRepository(PictureEntity) private readonly pictures: Repository<PictureEntity>) {}

  @Get(':id')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async get(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const picture = await this.pictures.findOneBy({ id });
    if (!picture) throw notFound('picture');
    response.type(picture.mediaType).send(picture.bytes);
  }

  /** Keeps a picture, which is the body, PNG or JPEG; one that is there already stays. */
  @Put(':id')
  @HttpCode(204)
  @ApiConsumes('application/octet-stream')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  async put(@Param('id') id: string, @Req() { body }: Request): Promise<void> {
    if (!/^[0-9a-f]{64}$/.test(id)) throw new PlainError(400, 'not-an-id', 'A picture’s id is a SHA-256.');
    const mediaType = Buffer.isBuffer(body) ? mediaTypeOf(body) : null;
    if (!mediaType) throw new PlainError(415, 'not-a-picture', 'What was sent is neither a PNG nor a JPEG picture.');
    const row = { id, mediaType, bytes: body, addedAt: new Date() };
    await this.pictures.createQueryBuilder().insert().into(PictureEntity).values(row).orIgnore().execute();
  }
}

function mediaTypeOf(bytes: Buffer): string | null {
  try {
    const { kind } = describePicture(bytes);
    return kind === 'png' ? 'image/png' : kind === 'jpg' ? 'image/jpeg' : null;
  } catch (error) {
    if (error instanceof FileRefused) return null;
    throw error;
  }
}
