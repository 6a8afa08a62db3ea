import { Module } from '@nestjs/common';
import { DataModule } from '../data/data.module.ts';
import { DeskModule } from '../desk/desk.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { FilesModule } from '../files/files.module.ts';
import { JobsModule } from '../jobs/jobs.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { SharingController } from './sharing.controller.ts';
import { SharingService } from './sharing.service.ts';

@Module({
  imports: [DataModule, DeskModule, EventsModule, FilesModule, JobsModule, WorkModule],
  controllers: [SharingController],
  providers: [SharingService],
})
export class SharingModule {}
