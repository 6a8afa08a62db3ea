import { Module } from '@nestjs/common';
import { SettingsModule } from '../settings/settings.module.ts';
import { BackupsController } from './backups.controller.ts';
import { BackupsService } from './backups.service.ts';

@Module({
  imports: [SettingsModule],
  controllers: [BackupsController],
  providers: [BackupsService],
  exports: [BackupsService],
})
export class BackupModule {}
