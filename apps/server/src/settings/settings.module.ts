import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { SettingEntity } from './setting.entity.ts';
import { SettingsController } from './settings.controller.ts';
import { SettingsService } from './settings.service.ts';

@Module({
  imports: [TypeOrmModule.forFeature([SettingEntity]), DataModule],
  controllers: [SettingsController],
  providers: [SettingsService],
  exports: [SettingsService],
})
export class SettingsModule {}
