import type { Machine } from '@lambent/core/machine';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';

@Entity('machines')
export class MachineEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  @Column('integer') position!: number;
  @Column('simple-json') definition!: Machine;
}
