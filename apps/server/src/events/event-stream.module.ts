import { Module } from '@nestjs/common';
import { PeopleModule } from '../people/people.module.ts';
import { EventsController } from './events.controller.ts';
import { EventsModule } from './events.module.ts';

/** What happens, as open pages hear it while they may. */
@Module({ imports: [EventsModule, PeopleModule], controllers: [EventsController] })
export class EventStreamModule {}
