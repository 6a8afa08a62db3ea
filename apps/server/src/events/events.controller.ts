import { Controller, type MessageEvent, Req, Sse } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { map, NEVER, type Observable, takeUntil } from 'rxjs';
import { Describe, streamOf } from '../api/describe.ts';
import type { KnownRequest } from '../people/access.guard.ts';
import { MayCall } from '../people/may-call.ts';
import { PeopleService } from '../people/people.service.ts';
import { tokenOf } from '../people/session-cookie.ts';
import { EventHub } from './event-hub.ts';

@ApiTags('events')
@Controller('api/events')
export class EventsController {
  constructor(
    private readonly hub: EventHub,
    private readonly people: PeopleService,
  ) {}

  @Sse()
  @MayCall('operator')
  @Describe(
    'Server-sent events: first the disk and every machine as they are, then whatever changes',
    streamOf<Observable<MessageEvent>>('ServerEvent'),
  )
  stream(@Req() request: KnownRequest): Observable<MessageEvent> {
    const isOver = request.isScript ? NEVER : this.people.loses(tokenOf(request), 'operator');
    return this.hub.statesAndHeard().pipe(
      map((data) => ({ data })),
      takeUntil(isOver),
    );
  }
}
