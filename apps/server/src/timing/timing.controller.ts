import type { MachineState, TimingAnswer } from '@lambent/contracts';
import { Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { TimingService } from './timing.service.ts';

@ApiTags('machines')
@Controller('api/machines/:id/timing')
export class TimingController {
  constructor(private readonly timing: TimingService) {}

  @Get()
  @MayCall('operator')
  @Describe('The timing card that a machine ran last, and what it tells', oneOf('Timing'), 404)
  last(@Param('id') id: string): Promise<TimingAnswer> {
    return this.timing.last(id);
  }

  @Post()
  @MayCall('operator')
  @HttpCode(200)
  @Describe('Has a machine run its timing card, unlit; answered when it has begun', oneOf('MachineState'), 404, 409)
  begin(@Param('id') id: string): Promise<MachineState> {
    return this.timing.begin(id);
  }
}
