import { Module } from '@nestjs/common';
import { EventHub } from './event-hub.ts';
import { EventsController } from './events.controller.ts';

@Module({ controllers: [EventsController], providers: [EventHub], exports: [EventHub] })
export class EventsModule {}
