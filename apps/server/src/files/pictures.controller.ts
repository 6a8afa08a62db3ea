import { Controller, Get, Header, Param, Put, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Describe, FileBody, fileOf, nothing } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { PicturesService } from './pictures.service.ts';

@ApiTags('pictures')
@Controller('api/pictures')
export class PicturesController {
  constructor(private readonly pictures: PicturesService) {}

  @Get(':id')
  @MayCall('operator')
  @Describe('A picture that drawings show', fileOf<void>('image/*'), 404)
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async get(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const { mediaType, bytes } = await this.pictures.get(id);
    response.type(mediaType).send(bytes);
  }

  @Put(':id')
  @MayCall('operator')
  @FileBody()
  @Describe('Keeps a picture, PNG or JPEG, under its SHA-256; one that is there already stays', nothing, 400, 413, 415)
  put(@Param('id') id: string, @Req() { body }: Request): Promise<void> {
    return this.pictures.keep(id, body);
  }
}
