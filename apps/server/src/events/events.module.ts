import { Module } from '@nestjs/common';
import { EventHub } from './event-hub.ts';

/** Where what happens is said; those who ask for it over the network get it from event-stream.module.ts. */
@Module({ providers: [EventHub], exports: [EventHub] })
export class EventsModule {}
