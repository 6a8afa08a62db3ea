import type { FontAnswer } from '@lambent/contracts';
import { Controller, Delete, Get, Header, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { FontsService } from './fonts.service.ts';

@ApiTags('fonts')
@Controller('api/fonts')
export class FontsController {
  constructor(private readonly fonts: FontsService) {}

  @Get()
  list(): Promise<FontAnswer[]> {
    return this.fonts.list();
  }

  @Get(':id')
  @Header('Cache-Control', 'private, max-age=86400')
  async get(@Param('id') id: string, @Res() response: Response): Promise<void> {
    response.type('application/octet-stream').send(Buffer.from(await this.fonts.bytes(id)));
  }

  /** Loads a font, which is the body: TTF, OTF or WOFF. */
  @Post()
  @ApiConsumes('application/octet-stream')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  load(@Req() { body }: Request): Promise<FontAnswer> {
    return this.fonts.load(body);
  }

  @Delete(':id')
  @HttpCode(204)
  delete(@Param('id') id: string): Promise<void> {
    return this.fonts.delete(id);
  }
}
