import { type JobSharing, ShareSheetsDto, type SharingGroup, type SheetsShared } from '@lambent/contracts';
import { Body, Controller, Get, Param, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, listOf, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { SharingService } from './sharing.service.ts';

@ApiTags('jobs')
@Controller('api')
export class SharingController {
  constructor(private readonly sharing: SharingService) {}

  @Get('sharing')
  @MayCall('operator')
  @Describe(
    'Jobs that are ready, by the stock they need, and how they would lie on sheets together',
    listOf('SharingGroup'),
  )
  groups(): Promise<SharingGroup[]> {
    return this.sharing.groups();
  }

  @Post('sharing')
  @MayCall('operator')
  @Describe('Lays jobs out on sheets that they share, as one job', oneOf('SheetsShared', 201), 400, 409)
  layOut(@Body() wish: ShareSheetsDto): Promise<SheetsShared> {
    return this.sharing.layOut(wish);
  }

  @Get('jobs/:id/sharing')
  @MayCall('operator')
  @Describe('On whose sheets a job lies, and what lies on its own', oneOf('JobSharing'))
  ofJob(@Param('id') id: string): Promise<JobSharing> {
    return this.sharing.ofJob(id);
  }
}
