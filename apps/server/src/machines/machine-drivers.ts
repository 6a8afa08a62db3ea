import type { Machine } from '@lambent/core/machine';
import { type MachineDriver, StandInDriver, type StandInOptions } from '@lambent/machines';
import { Injectable } from '@nestjs/common';

/** Makes the drivers of machines, each in the language that the machine speaks; all are stand-ins for now. */
@Injectable()
export class MachineDrivers {
  make({ address }: Machine, options: Omit<StandInOptions, 'host' | 'port'>): MachineDriver {
    return new StandInDriver({ ...address, ...options });
  }
}
