import type { ConnectionTest, SerialPortAnswer } from '@lambent/contracts';
import { type Machine, machineFromJson, NotAMachine } from '@lambent/core/machine';
import { type MachineDriver, serialPorts } from '@lambent/machines';
import { Injectable } from '@nestjs/common';
import { PlainError } from '../common/plain-error.ts';
import { MachineDrivers } from './machine-drivers.ts';
import { MachineLinks } from './machine-links.ts';
import { MachinesService } from './machines.service.ts';

/** So long a machine that is tested may take until it answers: small controllers start anew when a line is opened. */
const answersWithinMs = 6000;

/** Tries how a machine is reached, before or after it is kept. */
@Injectable()
export class ConnectionTester {
  constructor(
    private readonly machines: MachinesService,
    private readonly links: MachineLinks,
    private readonly makers: MachineDrivers,
  ) {}

  /** @throws PlainError 503 where ports cannot be listed on this computer */
  async ports(): Promise<SerialPortAnswer[]> {
    const machines = await this.machines.list();
    try {
      const found = await serialPorts();
      return found.map(({ path, maker }) => ({ path, maker, machine: atPort(machines, path)?.name ?? null }));
    } catch {
      throw new PlainError(
        503,
        'no-ports',
        'Serial ports cannot be listed on this computer. Type the name of the port.',
      );
    }
  }

  /**
   * What is found out about a machine and the line to it, step by step. Nothing moves and nothing burns.
   * @throws PlainError 400 where it is no machine, or nobody has said how it is reached
   */
  async test(json: unknown): Promise<ConnectionTest> {
    const machine = machineIn(json);
    const { connection } = machine;
    if (connection === null)
      throw new PlainError(400, 'not-connected', 'Say first how the machine is reached, then test that.');
    const line = this.links.lineTo(machine);
    if (line) return this.examined(line);
    if (connection.kind === 'stand-in') {
      const message = 'Its stand-in is made when the machine is kept. Keep it, then test again.';
      return { steps: [{ level: 'warns', message }], figures: {} };
    }
    const taken = connection.kind === 'serial' ? atPort(await this.machines.list(), connection.path, machine.id) : null;
    if (taken) {
      const message = `${taken.name} is at ${taken.connection?.kind === 'serial' ? taken.connection.path : 'that port'}.`;
      return { steps: [{ level: 'fails', message: `${message} Two machines cannot share a port.` }], figures: {} };
    }
    return this.tried(machine);
  }

  /** Opens a line for the test alone. */
  private async tried(machine: Machine): Promise<ConnectionTest> {
    let hear = () => {};
    const heard = new Promise<void>((resolve) => {
      hear = resolve;
    });
    const driver = await this.makers.make(machine, {
      changed: ({ state, reason }) => (state !== 'away' || reason !== null) && hear(),
    });
    if (!driver) return { steps: [], figures: {} };
    driver.open();
    try {
      return await this.examined(driver, heard);
    } finally {
      await driver.close(0);
    }
  }

  /** Examines a machine when it has answered, or something is known about why it does not. */
  private async examined(driver: MachineDriver, heard?: Promise<void>): Promise<ConnectionTest> {
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<void>((resolve) => {
      timer = setTimeout(resolve, answersWithinMs);
    });
    await Promise.race([heard, driver.askRun(), late]);
    clearTimeout(timer);
    const { steps, figures } = await driver.examine();
    return { steps: [...steps], figures };
  }
}

function machineIn(json: unknown): Machine {
  try {
    return machineFromJson(json);
  } catch (error) {
    if (!(error instanceof NotAMachine)) throw error;
    throw new PlainError(400, 'invalid', error.message);
  }
}

/** The machine that is at work at a serial port. @param but a machine that does not count */
export function atPort(machines: readonly Machine[], path: string, but?: string): Machine | null {
  const isThere = ({ id, connection, isPutAway }: Machine) =>
    id !== but && !isPutAway && connection?.kind === 'serial' && connection.path === path;
  return machines.find(isThere) ?? null;
}
