import type { FontAnswer } from '@lambent/contracts';
import { Controller, Delete, Get, Header, Param, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Describe, FileBody, fileOf, listOf, nothing, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { FontsService } from './fonts.service.ts';

@ApiTags('fonts')
@Controller('api/fonts')
export class FontsController {
  constructor(private readonly fonts: FontsService) {}

  @Get()
  @MayCall('operator')
  @Describe('The fonts that text can be set in', listOf('Font'))
  list(): Promise<FontAnswer[]> {
    return this.fonts.list();
  }

  @Get(':id')
  @MayCall('operator')
  @Describe('The file of a font', fileOf<void>('application/octet-stream'), 404)
  @Header('Cache-Control', 'private, max-age=86400')
  async get(@Param('id') id: string, @Res() response: Response): Promise<void> {
    response.type('application/octet-stream').send(Buffer.from(await this.fonts.bytes(id)));
  }

  @Post()
  @MayCall('operator')
  @Describe('Loads a font, which is the body: TTF, OTF or WOFF', oneOf('Font', 201), 400, 413, 415)
  @FileBody()
  load(@Req() { body }: Request): Promise<FontAnswer> {
    return this.fonts.load(body);
  }

  @Delete(':id')
  @MayCall('operator')
  @Describe('Deletes a font that the shop loaded', nothing, 404)
  delete(@Param('id') id: string): Promise<void> {
    return this.fonts.delete(id);
  }
}
