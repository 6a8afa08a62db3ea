import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { MessageEntity } from './message.entity.ts';
import { MessagesController } from './messages.controller.ts';
import { MessagesService } from './messages.service.ts';

@Module({
  imports: [TypeOrmModule.forFeature([MessageEntity]), DataModule, EventsModule],
  controllers: [MessagesController],
  providers: [MessagesService],
  exports: [MessagesService],
})
export class MessagesModule {}
