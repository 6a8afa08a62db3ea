import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { FilesModule } from '../files/files.module.ts';
import { OriginalEntity } from '../jobs/job.entities.ts';
import { JobsModule } from '../jobs/jobs.module.ts';
import { MachinesModule } from '../machines/machines.module.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { ShopModule } from '../shop/shop.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { JobFilesController } from './job-files.controller.ts';
import { JobFilesService } from './job-files.service.ts';

@Module({
  imports: [
    TypeOrmModule.forFeature([OriginalEntity]),
    DataModule,
    FilesModule,
    JobsModule,
    MachinesModule,
    SettingsModule,
    ShopModule,
    WorkModule,
  ],
  controllers: [JobFilesController],
  providers: [JobFilesService],
})
export class JobFilesModule {}
