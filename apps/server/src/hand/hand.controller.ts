import { AirDto, FocusDto, HeadDto, type MachineState, WalkDto } from '@lambent/contracts';
import { Body, Controller, HttpCode, Param, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { Describe, oneOf } from '../api/describe.ts';
import { goneSignal } from '../common/gone-signal.ts';
import { MayCall } from '../people/may-call.ts';
import { HandService } from './hand.service.ts';

@ApiTags('machines')
@Controller('api')
export class HandController {
  constructor(private readonly hand: HandService) {}

  @Post('machines/:id/head')
  @MayCall('operator')
  @HttpCode(200)
  @Describe('Moves the head, unlit; answered when it has begun', oneOf('MachineState'), 400, 404, 409)
  go(@Param('id') id: string, @Body() wish: HeadDto): Promise<MachineState> {
    return this.hand.go(id, wish);
  }

  @Post('machines/:id/focus')
  @MayCall('operator')
  @HttpCode(200)
  @Describe('Moves the focus up or down; answered when it has begun', oneOf('MachineState'), 400, 404, 409)
  focus(@Param('id') id: string, @Body() wish: FocusDto): Promise<MachineState> {
    return this.hand.focus(id, wish);
  }

  @Post('machines/:id/air')
  @MayCall('operator')
  @HttpCode(200)
  @Describe('Switches the air; answered when it has begun', oneOf('MachineState'), 400, 404, 409)
  air(@Param('id') id: string, @Body() wish: AirDto): Promise<MachineState> {
    return this.hand.air(id, wish);
  }

  @Post('jobs/:id/walks')
  @MayCall('operator')
  @HttpCode(200)
  @Describe(
    'Has the head go around a run, unlit, until it is stopped; answered when it has begun',
    oneOf('MachineState'),
    400,
    404,
    409,
    422,
  )
  walk(
    @Param('id') id: string,
    @Body() wish: WalkDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<MachineState> {
    return this.hand.walk(id, wish, goneSignal(response));
  }
}
