import { languageOf, type Machine } from '@lambent/core/machine';
import {
  type Connect,
  type MachineDriver,
  type MachineStatus,
  PlainDriver,
  StandInDriver,
  serialWire,
  tcpWire,
} from '@lambent/machines';
import { Injectable } from '@nestjs/common';
import { StandIns } from './stand-ins.ts';

/** What a line is to keep to, and who is told what comes over it. */
export interface LineOptions {
  /** So many seconds of burning may wait in the machine. */
  readonly windowS?: number;
  /** Called whenever what is known of the machine has changed. */
  readonly changed?: (status: MachineStatus) => void;
  /** What came that makes no sense, as it is put into the log. */
  readonly odd?: (what: string) => void;
}

/** Makes the drivers of machines, each for the way in which the machine is reached, and for its language. */
@Injectable()
export class MachineDrivers {
  constructor(private readonly standIns: StandIns) {}

  /**
   * @returns null where nobody has said how the machine is reached.
   * @throws PlainError 503 where a stand-in of it cannot be started.
   */
  async make(machine: Machine, options: LineOptions): Promise<MachineDriver | null> {
    const { connection } = machine;
    switch (connection?.kind) {
      case undefined:
        return null;
      case 'stand-in': {
        const port = await this.standIns.start(machine, connection.factor);
        return new StandInDriver({ host: '127.0.0.1', port, ...options });
      }
      case 'network': {
        const { host, port } = connection;
        if (languageOf(machine) === 'lambent') return new StandInDriver({ host, port, ...options });
        return plainDriver(machine, tcpWire(host, port), connection.buffer, options);
      }
      case 'serial':
        return plainDriver(machine, serialWire(connection.path, connection.baud), connection.buffer, options);
    }
  }

  /** What was started for a machine is stopped. */
  forget(machineId: string): void {
    this.standIns.stop(machineId);
  }

  forgetAll(): void {
    this.standIns.stopAll();
  }
}

function plainDriver({ lookAhead }: Machine, connect: Connect, buffer: number, options: LineOptions): PlainDriver {
  return new PlainDriver({ connect, buffer, ...(lookAhead === undefined ? {} : { lookAhead }), ...options });
}
