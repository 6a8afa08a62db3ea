import { Column, Entity, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';

/** Something that the shop has settled for every job. */
@Entity('settings')
export class SettingEntity extends Owned {
  @PrimaryColumn('text') name!: string;
  @Column('text') value!: string;
}
