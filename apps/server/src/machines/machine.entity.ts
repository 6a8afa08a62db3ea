import { type Machine, machineSchema } from '@lambent/core/machine';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';

@Entity('machines')
export class MachineEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  @Column('integer') position!: number;
  /** Read as a machine is by now: what an earlier build did not say has what is usual. */
  @Column('simple-json', {
    transformer: { from: (json: unknown) => machineSchema.read(json), to: (machine: Machine) => machine },
  })
  definition!: Machine;
}
