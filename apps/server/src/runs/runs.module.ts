import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { FilesModule } from '../files/files.module.ts';
import { HandModule } from '../hand/hand.module.ts';
import { JobsModule } from '../jobs/jobs.module.ts';
import { MachinesModule } from '../machines/machines.module.ts';
import { ShopModule } from '../shop/shop.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { BurntPictureEntity, RunEntity } from './run.entities.ts';
import { RunFollower } from './run-follower.ts';
import { RunRecord } from './run-record.ts';
import { RunRepeats } from './run-repeats.ts';
import { RunSender } from './run-sender.ts';
import { RunsController } from './runs.controller.ts';
import { RunsService } from './runs.service.ts';

@Module({
  imports: [
    TypeOrmModule.forFeature([RunEntity, BurntPictureEntity]),
    DataModule,
    EventsModule,
    WorkModule,
    ShopModule,
    MachinesModule,
    JobsModule,
    FilesModule,
    HandModule,
  ],
  controllers: [RunsController],
  providers: [RunsService, RunRepeats, RunSender, RunRecord, RunFollower],
})
export class RunsModule {}
