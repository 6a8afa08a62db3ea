import type { ServerEvent } from '@lambent/contracts';
import { Controller, type MessageEvent, Sse } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { from, map, merge, type Observable } from 'rxjs';
import { WriteQueue } from '../data/write-queue.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { EventHub } from './event-hub.ts';

@ApiTags('events')
@Controller('api/events')
export class EventsController {
  constructor(
    private readonly hub: EventHub,
    private readonly links: MachineLinks,
    private readonly writes: WriteQueue,
  ) {}

  /** Server-sent events: first the disk and every machine as they are, then whatever changes. */
  @Sse()
  stream(): Observable<MessageEvent> {
    const storage: ServerEvent = { type: 'storage', storage: this.writes.state };
    const machines = this.links.states().map((machine): ServerEvent => ({ type: 'machine', machine }));
    return merge(from([storage, ...machines]), this.hub.heard()).pipe(map((data) => ({ data })));
  }
}
