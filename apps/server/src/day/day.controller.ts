import { type DayAnswer, DayDto, GiveJobDto, TakeOffDayDto } from '@lambent/contracts';
import { Body, Controller, Delete, Get, HttpCode, Param, Put, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, nothing, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { DayService } from './day.service.ts';

@ApiTags('day')
@Controller('api/day')
export class DayController {
  constructor(private readonly day: DayService) {}

  @Get()
  @MayCall('operator')
  @Describe('What the machines did on a day, do now, and when they do what they were given', oneOf('Day'), 400)
  get(@Query() { day }: DayDto): Promise<DayAnswer> {
    return this.day.shown(day);
  }

  @Put('jobs/:id')
  @MayCall('operator')
  @HttpCode(204)
  @Describe('Gives a job to a machine, or moves it there', nothing, 400, 404, 409)
  give(@Param('id') id: string, @Body() place: GiveJobDto): Promise<void> {
    return this.day.give(id, place);
  }

  @Delete('jobs/:id')
  @MayCall('operator')
  @HttpCode(204)
  @Describe('Takes a job off the day', nothing, 400, 404, 409)
  takeOff(@Param('id') id: string, @Query() { seen }: TakeOffDayDto): Promise<void> {
    return this.day.takeOff(id, seen);
  }
}
