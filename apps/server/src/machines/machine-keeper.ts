import type { Machine } from '@lambent/core/machine';
import { Injectable } from '@nestjs/common';
import { PlainError } from '../common/plain-error.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { atPort } from './connection-tester.ts';
import { MachineLinks } from './machine-links.ts';
import { MachinesService } from './machines.service.ts';

/** Adds and changes machines; the lines to them follow. */
@Injectable()
export class MachineKeeper {
  constructor(
    private readonly machines: MachinesService,
    private readonly links: MachineLinks,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  async add(json: Record<string, unknown>): Promise<Machine> {
    await this.expectOwnPort(json);
    return this.linked(await this.writes.do('addMachine', json));
  }

  /** @throws PlainError 409 where it has a run and would move otherwise, or be reached otherwise. */
  async change(id: string, json: Record<string, unknown>): Promise<Machine> {
    const before = (await this.machines.list()).find((machine) => machine.id === id);
    if (before) this.links.expectMayChange({ ...before, ...json, id });
    await this.expectOwnPort({ ...json, id });
    return this.linked(await this.writes.do('changeMachine', id, json));
  }

  /** Makes lines to machines that came with something else, such as the file of a job. */
  async takeUpNew(): Promise<void> {
    const fresh = (await this.machines.list()).filter(({ id }) => !this.links.knows(id));
    for (const machine of fresh) await this.linked(machine);
  }

  /** @throws PlainError 409 where another machine is at the same serial port */
  private async expectOwnPort({ id, connection, isPutAway }: Record<string, unknown>): Promise<void> {
    const { kind, path } = (connection ?? {}) as Record<string, unknown>;
    if (kind !== 'serial' || isPutAway || typeof path !== 'string') return;
    const other = atPort(await this.machines.list(), path, String(id));
    if (!other) return;
    throw new PlainError(409, 'port-taken', `${other.name} is at ${path}. Choose another port, or put it away first.`);
  }

  private async linked({ id }: Machine): Promise<Machine> {
    const machine = await this.machines.get(id);
    await this.links.follow(machine);
    this.hub.say({ type: 'machines' });
    return machine;
  }
}
