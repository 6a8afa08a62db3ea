import type { TimedPartAnswer, TimingCardAnswer } from '@lambent/contracts';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';

/** The timing card that a machine ran last. */
@Entity('timing_cards')
export class TimingCardEntity extends Owned {
  @PrimaryColumn('text') machineId!: string;
  @Column('datetime') measuredAt!: Date;
  @Column('simple-json') parts!: TimedPartAnswer[];
  @Column('simple-json') figures!: TimingCardAnswer['figures'];
  @Column('simple-json') motion!: TimingCardAnswer['motion'];
}
