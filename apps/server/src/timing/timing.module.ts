import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { HandModule } from '../hand/hand.module.ts';
import { MachinesModule } from '../machines/machines.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { TimingController } from './timing.controller.ts';
import { TimingService } from './timing.service.ts';
import { TimingCardEntity } from './timing-card.entity.ts';

@Module({
  imports: [TypeOrmModule.forFeature([TimingCardEntity]), DataModule, HandModule, MachinesModule, WorkModule],
  controllers: [TimingController],
  providers: [TimingService],
})
export class TimingModule {}
