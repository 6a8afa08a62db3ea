import { Module } from '@nestjs/common';
import { BackupModule } from '../backup/backup.module.ts';
import { DataModule } from '../data/data.module.ts';
import { FilesModule } from '../files/files.module.ts';
import { JobsModule } from '../jobs/jobs.module.ts';
import { MachinesModule } from '../machines/machines.module.ts';
import { PeopleModule } from '../people/people.module.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { ShopModule } from '../shop/shop.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { DemoController } from './demo.controller.ts';
import { DemoService } from './demo.service.ts';

@Module({
  imports: [
    DataModule,
    FilesModule,
    WorkModule,
    MachinesModule,
    JobsModule,
    PeopleModule,
    SettingsModule,
    ShopModule,
    BackupModule,
  ],
  controllers: [DemoController],
  providers: [DemoService],
})
export class DemoModule {}
