import { Controller, Delete, HttpCode, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, nothing } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { DemoService } from './demo.service.ts';

@ApiTags('demo')
@Controller('api/demo')
export class DemoController {
  constructor(private readonly demo: DemoService) {}

  @Post()
  @MayCall('manager')
  @HttpCode(204)
  @Describe('Loads the demo shop into a new shop, to look around in', nothing, 409)
  lookAround(): Promise<void> {
    return this.demo.lookAround();
  }

  @Delete()
  @MayCall('manager')
  @Describe('Ends looking around: the demo shop is kept as a backup, and the shop is new again', nothing, 409)
  leave(): Promise<void> {
    return this.demo.leave();
  }
}
