import type { ServerEvent } from '@lambent/contracts';
import { Injectable } from '@nestjs/common';
import { concat, defer, from, Observable, Subject } from 'rxjs';

/** Where what happens is said, and whoever listens hears it. */
@Injectable()
export class EventHub {
  private readonly events = new Subject<ServerEvent>();
  /** What was last said of each thing that has a state: the disk, and every machine. */
  private readonly states = new Map<string, ServerEvent>([['storage', { type: 'storage', storage: { ok: true } }]]);

  say(event: ServerEvent): void {
    if (event.type === 'storage') this.states.set('storage', event);
    if (event.type === 'machine') this.states.set(`machine ${event.machine.machineId}`, event);
    this.events.next(event);
  }

  /** Says nothing more of a machine that is not the shop's any more. */
  forgetMachine(machineId: string): void {
    this.states.delete(`machine ${machineId}`);
  }

  /** What happens from now on. */
  heard(): Observable<ServerEvent> {
    return this.events.asObservable();
  }

  /** First the state of the disk and of every machine, then what happens. */
  statesAndHeard(): Observable<ServerEvent> {
    return concat(
      defer(() => from([...this.states.values()])),
      this.events,
    );
  }
}
