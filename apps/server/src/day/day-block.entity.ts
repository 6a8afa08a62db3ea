import { Column, Entity, JoinColumn, OneToOne, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';
import { JobEntity } from '../jobs/job.entities.ts';

/** A job that waits for its machine, until it is burnt. */
@Entity('day_blocks')
export class DayBlockEntity extends Owned {
  @PrimaryColumn('text') jobId!: string;
  @OneToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  /** Its place among those of its machine, counted from 0. */
  @Column('integer') place!: number;
  @Column('datetime', { nullable: true }) notBefore!: Date | null;
  /** How often it was moved, by which two who move it at once are told apart. */
  @Column('integer') seen!: number;
}
