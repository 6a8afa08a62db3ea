import type { Machine } from '@lambent/core/machine';
import { type MachineDriver, StandInDriver, type StandInOptions } from '@lambent/machines';
import { Injectable } from '@nestjs/common';
import { StandIns } from './stand-ins.ts';

/** Makes the drivers of machines, each for the way in which the machine is reached. */
@Injectable()
export class MachineDrivers {
  constructor(private readonly standIns: StandIns) {}

  /**
   * @returns null where nobody has said how the machine is reached.
   * @throws PlainError 503 where a stand-in of it cannot be started.
   */
  async make(machine: Machine, options: Omit<StandInOptions, 'host' | 'port'>): Promise<MachineDriver | null> {
    const { connection } = machine;
    switch (connection?.kind) {
      case undefined:
        return null;
      case 'stand-in': {
        const port = await this.standIns.start(machine, connection.factor);
        return new StandInDriver({ host: '127.0.0.1', port, ...options });
      }
      case 'network':
        return new StandInDriver({ host: connection.host, port: connection.port, ...options });
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
