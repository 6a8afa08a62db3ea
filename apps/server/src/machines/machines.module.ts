import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { ConnectionTester } from './connection-tester.ts';
import { MachineEntity } from './machine.entity.ts';
import { MachineDrivers } from './machine-drivers.ts';
import { MachineKeeper } from './machine-keeper.ts';
import { MachineLinks } from './machine-links.ts';
import { MachinesController } from './machines.controller.ts';
import { MachinesService } from './machines.service.ts';
import { StandIns } from './stand-ins.ts';

@Module({
  imports: [TypeOrmModule.forFeature([MachineEntity]), EventsModule, DataModule],
  controllers: [MachinesController],
  providers: [MachinesService, MachineLinks, MachineDrivers, MachineKeeper, StandIns, ConnectionTester],
  exports: [MachinesService, MachineLinks, MachineKeeper],
})
export class MachinesModule {}
