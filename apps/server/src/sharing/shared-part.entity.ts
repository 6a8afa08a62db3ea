import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryGeneratedColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';
import { JobEntity } from '../jobs/job.entities.ts';

/** A job that lies on the sheets of a shared one. Those that still do are the view `parts_in_place`. */
@Entity('shared_parts')
export class SharedPartEntity extends Owned {
  @PrimaryGeneratedColumn() id!: number;
  @Index('parts_of_shared_job')
  @Column('text')
  sharedJobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'sharedJobId' })
  sharedJob!: JobEntity;
  /** Which of them it is, counted from 0: its groups in the drawing bear that number (core/sharing/part-ids.ts). */
  @Column('integer') place!: number;
  @Index('shared_parts_of_job')
  @Column('text')
  jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  /** The version of the job that lies there. */
  @Column('integer') version!: number;
  @Column('integer') copies!: number;
  /** Its share of the price; null where the shop takes no money. */
  @Column('real', { nullable: true }) price!: number | null;
  /** When it left, to be burnt again alone; null where it did not. */
  @Column('datetime', { nullable: true }) leftAt!: Date | null;
}
