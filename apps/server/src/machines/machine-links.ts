import type { MachineState } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import type { MachineDriver, MachineStatus } from '@lambent/machines';
import { Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { notFound } from '../common/plain-error.ts';
import { EventHub } from '../events/event-hub.ts';
import { MachineDrivers } from './machine-drivers.ts';
import { MachinesService } from './machines.service.ts';
import { Pace } from './pace.ts';

/** Burning that may wait in a machine, in seconds; more where the head needs longer than that to brake. */
const windowS = 2;
/** How often the page is told where a machine is. */
const tellEveryMs = 60;
/** A machine that makes no sense is put into the log so often, and then counted only. */
const mostOddities = 20;

/** A line to every machine of the shop. */
@Injectable()
export class MachineLinks implements OnApplicationBootstrap {
  private readonly log = new Logger('Machines');
  private readonly drivers = new Map<string, MachineDriver>();

  constructor(
    private readonly machines: MachinesService,
    private readonly hub: EventHub,
    private readonly makers: MachineDrivers,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    for (const machine of await this.machines.list()) {
      const driver = this.driverFor(machine);
      this.drivers.set(machine.id, driver);
      this.hub.say({ type: 'machine', machine: this.state(machine.id) });
      driver.open();
    }
  }

  private driverFor(machine: Machine): MachineDriver {
    const { id, name, topSpeed, acceleration } = machine;
    // A page draws what it hears; a machine that is fed fast would else keep it from anything else.
    const pace = new Pace<MachineState>(tellEveryMs, (state) => this.hub.say({ type: 'machine', machine: state }));
    let told: MachineStatus | null = null;
    const driver: MachineDriver = this.makers.make(machine, {
      windowS: Math.max(windowS, (2 * topSpeed) / acceleration),
      changed: (status) => {
        const urgent =
          !told || (['state', 'reason', 'lid', 'runId'] as const).some((name) => told?.[name] !== status[name]);
        told = status;
        pace.take(stateOf(id, status), urgent);
      },
      odd: (what) => {
        if (driver.oddities <= mostOddities) this.log.warn(`${name} said what makes no sense: ${what}`);
      },
    });
    return driver;
  }

  states(): MachineState[] {
    return Array.from(this.drivers, ([id, { status }]) => stateOf(id, status));
  }

  state(id: string): MachineState {
    return stateOf(id, this.get(id).status);
  }

  get ids(): string[] {
    return [...this.drivers.keys()];
  }

  /** @throws PlainError 404 */
  get(id: string): MachineDriver {
    const driver = this.drivers.get(id);
    if (!driver) throw notFound('machine');
    return driver;
  }

  /** Holds what runs and closes the lines. */
  async close(withinMs: number): Promise<void> {
    await Promise.all(Array.from(this.drivers.values(), (driver) => driver.close(withinMs)));
  }
}

function stateOf(machineId: string, status: MachineStatus): MachineState {
  return { machineId, ...status };
}
