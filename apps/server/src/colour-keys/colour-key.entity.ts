import type { ColourKey } from '@lambent/core/colours';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';

@Entity('colour_keys')
export class ColourKeyEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  @Column('integer') position!: number;
  @Column('simple-json') definition!: ColourKey;
}
