import { Controller, type MessageEvent, Sse } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { map, type Observable } from 'rxjs';
import { EventHub } from './event-hub.ts';

@ApiTags('events')
@Controller('api/events')
export class EventsController {
  constructor(private readonly hub: EventHub) {}

  /** Server-sent events: first the disk and every machine as they are, then whatever changes. */
  @Sse()
  stream(): Observable<MessageEvent> {
    return this.hub.statesAndHeard().pipe(map((data) => ({ data })));
  }
}
