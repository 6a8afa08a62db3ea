import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { FilesModule } from '../files/files.module.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { ShopModule } from '../shop/shop.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { JobEntity, OriginalEntity, VersionEntity } from './job.entities.ts';
import { JobPicturesService } from './job-pictures.service.ts';
import { JobsController } from './jobs.controller.ts';
import { JobsService } from './jobs.service.ts';

@Module({
  imports: [
    TypeOrmModule.forFeature([JobEntity, VersionEntity, OriginalEntity]),
    DataModule,
    EventsModule,
    FilesModule,
    WorkModule,
    ShopModule,
    SettingsModule,
  ],
  controllers: [JobsController],
  providers: [JobsService, JobPicturesService],
  exports: [JobsService],
})
export class JobsModule {}
