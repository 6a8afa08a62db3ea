import type { MachineState } from '@lambent/contracts';
import { Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { EventHub } from '../common/event-hub.ts';
import { notFound } from '../common/plain-error.ts';
import { ShopService } from '../data/shop.service.ts';
import { MachineLink } from './machine-link.ts';

/** A line to every machine of the shop. */
@Injectable()
export class MachineLinks implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly links = new Map<string, MachineLink>();

  constructor(
    private readonly shop: ShopService,
    private readonly hub: EventHub,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    for (const { id, address } of await this.shop.machines()) {
      const link = new MachineLink(id, address, (machine) => this.hub.say({ type: 'machine', machine }));
      this.links.set(id, link);
      link.open();
    }
  }

  onApplicationShutdown(): void {
    for (const link of this.links.values()) link.close();
  }

  states(): MachineState[] {
    return [...this.links.values()].map((link) => link.state);
  }

  get(id: string): MachineLink {
    const link = this.links.get(id);
    if (!link) throw notFound('machine');
    return link;
  }
}
