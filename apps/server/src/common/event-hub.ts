import type { ServerEvent } from '@lambent/contracts';
import { Injectable } from '@nestjs/common';
import { Observable, Subject } from 'rxjs';

/** Where what happens is said, and whoever listens hears it. */
@Injectable()
export class EventHub {
  private readonly events = new Subject<ServerEvent>();

  say(event: ServerEvent): void {
    this.events.next(event);
  }

  heard(): Observable<ServerEvent> {
    return this.events.asObservable();
  }
}
