import type { ServerEvent } from '@lambent/contracts';
import { Controller, type MessageEvent, Sse } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { from, map, merge, type Observable } from 'rxjs';
import { MachineLinks } from '../machines/machine-links.ts';
import { EventHub } from './event-hub.ts';

@ApiTags('events')
@Controller('api/events')
export class EventsController {
  constructor(
    private readonly hub: EventHub,
    private readonly links: MachineLinks,
  ) {}

  /** Server-sent events: first every machine as it is, then whatever changes. */
  @Sse()
  stream(): Observable<MessageEvent> {
    const now = from(this.links.states().map((machine): ServerEvent => ({ type: 'machine', machine })));
    return merge(now, this.hub.heard()).pipe(map((data) => ({ data })));
  }
}
