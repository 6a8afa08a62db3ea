import { Module } from '@nestjs/common';
import { EventsModule } from '../events/events.module.ts';
import { WriteQueue } from './write-queue.ts';
import { Writer } from './writer.ts';

/** The queue of writes; rooms that read bring in their own tables. */
@Module({ imports: [EventsModule], providers: [WriteQueue, Writer], exports: [WriteQueue] })
export class DataModule {}
