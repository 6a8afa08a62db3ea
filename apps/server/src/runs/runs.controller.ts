import { createReadStream } from 'node:fs';
import { type BurntPictureAnswer, type RunAnswer, StartRunDto } from '@lambent/contracts';
import { Body, Controller, Get, Param, Post, Query, StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { RunsService } from './runs.service.ts';

@ApiTags('runs')
@Controller('api')
export class RunsController {
  constructor(private readonly runs: RunsService) {}

  /** The record, newest first; of one job, or of all. */
  @Get('runs')
  list(@Query('job') jobId?: string): Promise<RunAnswer[]> {
    return this.runs.list(jobId);
  }

  /** The very program that was sent. */
  @Get('runs/:id/program.gcode')
  async program(@Param('id') id: string): Promise<StreamableFile> {
    return new StreamableFile(createReadStream(await this.runs.programPath(id)), { type: 'text/plain' });
  }

  /** How it came out. */
  @Get('runs/:id/picture')
  picture(@Param('id') id: string): Promise<BurntPictureAnswer> {
    return this.runs.picture(id);
  }

  @Post('jobs/:id/runs')
  start(@Param('id') jobId: string, @Body() wanted: StartRunDto): Promise<RunAnswer> {
    return this.runs.start(jobId, wanted);
  }
}
