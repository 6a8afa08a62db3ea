import { Module } from '@nestjs/common';
import { DataModule } from '../data/data.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { FilesModule } from '../files/files.module.ts';
import { JobsModule } from '../jobs/jobs.module.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { ShopModule } from '../shop/shop.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { DeskController } from './desk.controller.ts';
import { DeskService } from './desk.service.ts';
import { EstimatesService } from './estimates.service.ts';

@Module({
  imports: [DataModule, EventsModule, FilesModule, JobsModule, SettingsModule, ShopModule, WorkModule],
  controllers: [DeskController],
  providers: [DeskService, EstimatesService],
  exports: [EstimatesService],
})
export class DeskModule {}
