import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { MailEntity } from './mail.entity.ts';
import { MailsController } from './mails.controller.ts';
import { MailsService } from './mails.service.ts';

@Module({
  imports: [TypeOrmModule.forFeature([MailEntity]), DataModule, EventsModule, SettingsModule],
  controllers: [MailsController],
  providers: [MailsService],
})
export class MailsModule {}
