import type { NumberFamily } from '@lambent/core/builders';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';

@Entity('number_families')
@Index('families_by_name', ['builder', 'name'], { unique: true })
export class NumberFamilyEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  @Column('text') name!: string;
  @Column('text') builder!: string;
  @Column('simple-json') numbers!: NumberFamily['numbers'];
}
