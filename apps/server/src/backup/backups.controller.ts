import type { BackupFile } from '@lambent/contracts';
import { Controller, Get, Param, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { Describe, fileOf, listOf, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { BackupsService } from './backups.service.ts';

@ApiTags('backups')
@Controller('api/backups')
export class BackupsController {
  constructor(private readonly backups: BackupsService) {}

  @Get()
  @MayCall('manager')
  @Describe('The backups in the data folder, the last one first', listOf('BackupFile'))
  list(): BackupFile[] {
    return this.backups.list();
  }

  @Post()
  @MayCall('manager')
  @Describe('Makes a backup of the shop, checked when it is made', oneOf('BackupFile', 201))
  make(): Promise<BackupFile> {
    return this.backups.make(new Date());
  }

  @Get(':name')
  @MayCall('manager')
  @Describe('The file of a backup', fileOf<void>('application/gzip'), 404)
  get(@Param('name') name: string, @Res() response: Response): void {
    response.type('application/gzip').download(this.backups.fileOf(name), name);
  }
}
