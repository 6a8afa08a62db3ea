import { Controller, type MessageEvent, Sse } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { map, type Observable } from 'rxjs';
import { Describe, streamOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { EventHub } from './event-hub.ts';

@ApiTags('events')
@Controller('api/events')
export class EventsController {
  constructor(private readonly hub: EventHub) {}

  @Sse()
  @MayCall('operator')
  @Describe(
    'Server-sent events: first the disk and every machine as they are, then whatever changes',
    streamOf<Observable<MessageEvent>>('ServerEvent'),
  )
  stream(): Observable<MessageEvent> {
    return this.hub.statesAndHeard().pipe(map((data) => ({ data })));
  }
}
