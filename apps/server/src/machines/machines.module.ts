import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { EventsModule } from '../events/events.module.ts';
import { MachineEntity } from './machine.entity.ts';
import { MachineDrivers } from './machine-drivers.ts';
import { MachineLinks } from './machine-links.ts';
import { MachinesController } from './machines.controller.ts';
import { MachinesService } from './machines.service.ts';

@Module({
  imports: [TypeOrmModule.forFeature([MachineEntity]), EventsModule],
  controllers: [MachinesController],
  providers: [MachinesService, MachineLinks, MachineDrivers],
  exports: [MachinesService, MachineLinks],
})
export class MachinesModule {}
