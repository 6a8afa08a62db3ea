import { type BegunSending, BringInDto, TakeNewFileDto } from '@lambent/contracts';
import { Body, Controller, Get, Header, HttpCode, Param, Post, Query, Req } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { Describe, FileBody, fileOf, nothing, oneOf } from '../api/describe.ts';
import { sentBytes } from '../common/sent-bytes.ts';
import { MayCall } from '../people/may-call.ts';
import { NewFilesService } from './new-files.service.ts';

@ApiTags('drop-off')
@Controller('api')
export class NewFilesController {
  constructor(private readonly files: NewFilesService) {}

  @Post('drop-off/:token/files')
  @MayCall('everybody')
  @FileBody()
  @Describe(
    'Begins a new file for what was sent in; the answer holds the token of its draft, once',
    oneOf('BegunSending', 201),
    404,
    409,
    413,
    415,
    422,
  )
  begin(@Param('token') token: string, @Query() { name }: BringInDto, @Req() request: Request): Promise<BegunSending> {
    return this.files.begin(token, name ?? '', sentBytes(request, name || 'The file'));
  }

  @Get('drop-off/:token/difference.svg')
  @MayCall('everybody')
  @Describe('What a draft of a new file changes, as an SVG', fileOf<string>('image/svg+xml'), 404)
  @Header('Content-Type', 'image/svg+xml')
  @Header('Cache-Control', 'private, no-cache')
  difference(@Param('token') token: string): Promise<string> {
    return this.files.differencePicture(token);
  }

  @Post('drop-off/:token/send-file')
  @MayCall('everybody')
  @HttpCode(204)
  @Describe('Sends a draft of a new file to the workshop, in the place of the one before', nothing, 404, 409)
  send(@Param('token') token: string): Promise<void> {
    return this.files.send(token);
  }

  @Get('jobs/:id/new-file/difference.svg')
  @MayCall('operator')
  @Describe('What the new file that waits for a job changes, as an SVG', fileOf<string>('image/svg+xml'), 404)
  @Header('Content-Type', 'image/svg+xml')
  @Header('Cache-Control', 'private, no-cache')
  differenceForJob(@Param('id') id: string): Promise<string> {
    return this.files.differenceForJob(id);
  }

  @Post('jobs/:id/new-file/taken')
  @MayCall('operator')
  @HttpCode(204)
  @Describe('Takes the new file of a job: it is its next version', nothing, 400, 404, 409)
  take(@Param('id') id: string, @Body() { id: fileId, by }: TakeNewFileDto): Promise<void> {
    return this.files.take(id, fileId, by?.trim() || null);
  }

  @Post('jobs/:id/new-file/left-out')
  @MayCall('operator')
  @HttpCode(204)
  @Describe('Leaves the new file of a job out: the one before holds', nothing, 400, 409)
  leaveOut(@Param('id') id: string, @Body() { id: fileId, by }: TakeNewFileDto): Promise<void> {
    return this.files.leaveOut(id, fileId, by?.trim() || null);
  }
}
