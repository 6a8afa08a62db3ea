import type { JobEstimate, JobState } from '@lambent/contracts';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';
import { JobEntity } from '../jobs/job.entities.ts';

/** A step that a job took through the shop. */
@Entity('job_steps')
export class JobStepEntity extends Owned {
  @PrimaryGeneratedColumn() id!: number;
  @Index('steps_of_job')
  @Column('text')
  jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  @Column('text') state!: JobState;
  @Column('datetime') at!: Date;
  /** The name of who moved it; null where it was a run, or nobody said. */
  @Column('text', { nullable: true }) by!: string | null;
  /** The job on whose sheets it was burnt; null where it was burnt alone. */
  @Column('text', { nullable: true }) sharedJobId!: string | null;
}

/** What a job was worked out to take and to cost. */
@Entity('estimates')
export class EstimateEntity implements JobEstimate {
  @PrimaryColumn('text') jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  /** Of which version, on which materials, and by which state of them (estimate-basis.ts): another makes it out of date. */
  @Column('integer') version!: number;
  @Column('simple-json') materialIds!: string[];
  @Column('text') shopHash!: string;
  @Column('real', { nullable: true }) seconds!: number | null;
  @Column('real', { nullable: true }) price!: number | null;
  @Column('integer') blocks!: number;
  @Column('integer') warns!: number;
}
