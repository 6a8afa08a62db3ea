import { Module } from '@nestjs/common';
import { JobsModule } from '../jobs/jobs.module.ts';
import { MachinesModule } from '../machines/machines.module.ts';
import { ShopModule } from '../shop/shop.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { HandController } from './hand.controller.ts';
import { HandService } from './hand.service.ts';

@Module({
  imports: [MachinesModule, JobsModule, ShopModule, WorkModule],
  controllers: [HandController],
  providers: [HandService],
  exports: [HandService],
})
export class HandModule {}
