import { readFile } from 'node:fs/promises';
import { shippedAsset } from '@lambent/fonts';
import { Controller, Get, Header, Param, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { Describe, fileOf } from '../api/describe.ts';
import { notFound } from '../common/plain-error.ts';
import { MayCall } from '../people/may-call.ts';

/** Files that stand in for what a PDF does not embed. */
@ApiTags('files')
@Controller('api/assets')
export class AssetsController {
  @Get(':folder/:name')
  @MayCall('operator')
  @Describe('A file that readers need, as it ships', fileOf<void>('application/octet-stream'), 404)
  @Header('Cache-Control', 'private, max-age=86400')
  async get(@Param('folder') folder: string, @Param('name') name: string, @Res() response: Response): Promise<void> {
    const path = shippedAsset(`${folder}/${name}`);
    if (!path) throw notFound('file');
    response.type('application/octet-stream').send(await readFile(path).catch(() => Promise.reject(notFound('file'))));
  }
}
