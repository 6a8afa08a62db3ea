import { createReadStream } from 'node:fs';
import {
  AgainDto,
  type BurntPictureAnswer,
  GoOnDto,
  type NextRunAnswer,
  OffcutDto,
  PlanWishDto,
  PutBackDto,
  type RunAnswer,
  RunsWishDto,
  RunWishDto,
  StartRunDto,
} from '@lambent/contracts';
import type { Report } from '@lambent/core/checks';
import type { RunBasis } from '@lambent/core/plan';
import { Body, Controller, Get, Param, Post, Query, Res, StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { Describe, fileOf, listOf, oneOf } from '../api/describe.ts';
import { goneSignal } from '../common/gone-signal.ts';
import { MayCall } from '../people/may-call.ts';
import { RunRecord } from './run-record.ts';
import { RunRepeats } from './run-repeats.ts';
import { RunsService } from './runs.service.ts';

@ApiTags('runs')
@Controller('api')
export class RunsController {
  constructor(
    private readonly runs: RunsService,
    private readonly record: RunRecord,
    private readonly repeats: RunRepeats,
  ) {}

  @Get('runs')
  @MayCall('operator')
  @Describe(
    'The record of runs, the newest first, a hundred at most; of one job, or as they are searched',
    listOf('Run'),
    400,
  )
  list(@Query() wish: RunsWishDto): Promise<RunAnswer[]> {
    return this.record.list(wish);
  }

  @Get('runs/:id')
  @MayCall('operator')
  @Describe('A run, when it has ended or has been waited for long enough', oneOf('Run'), 400, 404)
  get(@Param('id') id: string, @Query() { wait = 0 }: RunWishDto): Promise<RunAnswer> {
    return this.record.get(id, wait);
  }

  @Get('runs/:id/program.gcode')
  @MayCall('operator')
  @Describe('The very program that was sent', fileOf('text/plain'), 404)
  async program(@Param('id') id: string): Promise<StreamableFile> {
    return new StreamableFile(createReadStream(await this.record.programPath(id)), { type: 'text/plain' });
  }

  @Get('runs/:id/picture')
  @MayCall('operator')
  @Describe('What the bed looked like after a run', oneOf('BurntPicture'), 404)
  picture(@Param('id') id: string): Promise<BurntPictureAnswer> {
    return this.record.picture(id);
  }

  @Get('runs/:id/basis')
  @MayCall('operator')
  @Describe('What a run was planned by: the machine’s figures, the settings, the order', oneOf('RunBasis'), 404)
  basis(@Param('id') id: string): Promise<RunBasis> {
    return this.record.basis(id);
  }

  @Get('jobs/:id/next-run')
  @MayCall('operator')
  @Describe('The run of a job that is burnt next, and what is to lie on the bed for it', oneOf('NextRun'), 404)
  next(@Param('id') id: string): Promise<NextRunAnswer> {
    return this.runs.next(id);
  }

  @Post('runs/:id/again')
  @MayCall('operator')
  @Describe('Sends the very program of a run once more', oneOf('Run', 201), 400, 404, 409, 422)
  again(
    @Param('id') id: string,
    @Body() wanted: AgainDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<RunAnswer> {
    return this.repeats.again(id, wanted, goneSignal(response));
  }

  @Post('runs/:id/go-on')
  @MayCall('operator')
  @Describe('Burns the rest of a run, from one of its lines on', oneOf('Run', 201), 400, 404, 409, 410)
  goOn(@Param('id') id: string, @Body() wanted: GoOnDto): Promise<RunAnswer> {
    return this.repeats.goOn(id, wanted);
  }

  @Post('runs/:id/stock/put-back')
  @MayCall('operator')
  @Describe('Puts a sheet that a run took back into stock', oneOf('Run'), 400, 404, 409)
  putBack(@Param('id') id: string, @Body() wanted: PutBackDto): Promise<RunAnswer> {
    return this.record.putBack(id, wanted);
  }

  @Post('runs/:id/stock/offcuts')
  @MayCall('operator')
  @Describe('Keeps what is left of a sheet that a run took', oneOf('Run'), 400, 404, 409)
  keepOffcut(@Param('id') id: string, @Body() wanted: OffcutDto): Promise<RunAnswer> {
    return this.record.keepOffcut(id, wanted);
  }

  @Get('jobs/:id/plan')
  @MayCall('operator')
  @Describe(
    'What a run of a job would do: its layers, times and findings; nothing is sent',
    oneOf('Report'),
    400,
    404,
    422,
  )
  plan(
    @Param('id') jobId: string,
    @Query() wanted: PlanWishDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Report> {
    return this.runs.plan(jobId, wanted, goneSignal(response));
  }

  @Post('jobs/:id/runs')
  @MayCall('operator')
  @Describe('Plans a run of a saved version and sends it to its machine', oneOf('Run', 201), 400, 404, 409, 422)
  start(
    @Param('id') jobId: string,
    @Body() wanted: StartRunDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<RunAnswer> {
    return this.runs.start(jobId, wanted, goneSignal(response));
  }
}
