import { createReadStream } from 'node:fs';
import {
  type BurntPictureAnswer,
  OffcutDto,
  PlanWishDto,
  PutBackDto,
  type RunAnswer,
  StartRunDto,
} from '@lambent/contracts';
import type { Report } from '@lambent/core/checks';
import { Body, Controller, Get, HttpCode, Param, Post, Query, Res, StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
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

  /** Puts a sheet that it took back into stock. */
  @Post('runs/:id/stock/put-back')
  @HttpCode(200)
  putBack(@Param('id') id: string, @Body() wanted: PutBackDto): Promise<RunAnswer> {
    return this.runs.putBack(id, wanted);
  }

  /** Keeps what is left of a sheet that it took. */
  @Post('runs/:id/stock/offcuts')
  @HttpCode(200)
  keepOffcut(@Param('id') id: string, @Body() wanted: OffcutDto): Promise<RunAnswer> {
    return this.runs.keepOffcut(id, wanted);
  }

  /** What a run of a job would do: its layers, times and findings. Nothing is sent. */
  @Get('jobs/:id/plan')
  plan(
    @Param('id') jobId: string,
    @Query() wanted: PlanWishDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Report> {
    return this.runs.plan(jobId, wanted, goneSignal(response));
  }

  @Post('jobs/:id/runs')
  start(
    @Param('id') jobId: string,
    @Body() wanted: StartRunDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<RunAnswer> {
    return this.runs.start(jobId, wanted, goneSignal(response));
  }
}

/** Who has gone does not wait for the plan any more. */
function goneSignal(response: Response): AbortSignal {
  const gone = new AbortController();
  response.once('close', () => response.writableFinished || gone.abort());
  return gone.signal;
}
