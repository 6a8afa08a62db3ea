import { DeskDto, type DeskPage, type JobCard, type JobStepAnswer, MoveJobDto, mostAtOnce } from '@lambent/contracts';
import { Body, Controller, Get, HttpCode, Param, Put, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, listOf, nothing, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { DeskService } from './desk.service.ts';

@ApiTags('jobs')
@Controller('api')
export class DeskController {
  constructor(private readonly desk: DeskService) {}

  @Get('desk')
  @MayCall('operator')
  @Describe(
    'One page of the Desk: the jobs that are asked for, and how many there are of each state',
    oneOf('DeskPage'),
    400,
  )
  page(@Query() wish: DeskDto): Promise<DeskPage> {
    return this.desk.shown(wish);
  }

  @Get('jobs')
  @MayCall('operator')
  @Describe('Jobs as the Desk shows them, 500 at once where nothing else is asked for', listOf('JobCard'), 400)
  async list(@Query() wish: DeskDto): Promise<JobCard[]> {
    return (await this.desk.page({ ...wish, size: wish.size ?? mostAtOnce })).jobs;
  }

  @Put('jobs/:id/state')
  @MayCall('operator')
  @HttpCode(204)
  @Describe('Says where a job stands in the shop', nothing, 400, 404)
  move(@Param('id') id: string, @Body() { state, by }: MoveJobDto): Promise<void> {
    return this.desk.move(id, state, by?.trim() || null);
  }

  @Get('jobs/:id/steps')
  @MayCall('operator')
  @Describe('The steps of a job through the shop, the last first', listOf('JobStep'))
  steps(@Param('id') id: string): Promise<JobStepAnswer[]> {
    return this.desk.steps(id);
  }
}
