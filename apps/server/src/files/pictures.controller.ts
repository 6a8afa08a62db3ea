import { Controller, Get, Header, HttpCode, Param, Put, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { PicturesService } from './pictures.service.ts';

@ApiTags('pictures')
@Controller('api/pictures')
export class PicturesController {
  constructor(private readonly pictures: PicturesService) {}

  @Get(':id')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async get(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const { mediaType, bytes } = await this.pictures.get(id);
    response.type(mediaType).send(bytes);
  }

  /** Keeps a picture, which is the body, PNG or JPEG, under its SHA-256; one that is there already stays. */
  @Put(':id')
  @HttpCode(204)
  @ApiConsumes('application/octet-stream')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  put(@Param('id') id: string, @Req() { body }: Request): Promise<void> {
    return this.pictures.keep(id, body);
  }
}
