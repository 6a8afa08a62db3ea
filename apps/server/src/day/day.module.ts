import { Module } from '@nestjs/common';
import { DataModule } from '../data/data.module.ts';
import { DeskModule } from '../desk/desk.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { DayController } from './day.controller.ts';
import { DayService } from './day.service.ts';

@Module({
  imports: [DataModule, DeskModule, EventsModule, SettingsModule],
  controllers: [DayController],
  providers: [DayService],
  exports: [DayService],
})
export class DayModule {}
