import type { RunStatus, TakenSheet } from '@lambent/contracts';
import type { Run, Sheet } from '@lambent/core/document';
import type { RunBasis } from '@lambent/core/plan';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';
import { JobEntity } from '../jobs/job.entities.ts';

@Entity('runs')
@Index(['jobId', 'sequence'])
export class RunEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  /** Its place in the record, counted from 1. */
  @Index({ unique: true })
  @Column('integer')
  sequence!: number;
  @Column('text')
  jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  @Column('integer') version!: number;
  @Column('text') jobRunId!: string;
  @Column('text') jobRunName!: string;
  @Column('text') machineId!: string;
  @Column('text') status!: RunStatus;
  @Column('text', { nullable: true }) reason!: string | null;
  @Column('datetime') startedAt!: Date;
  @Column('datetime', { nullable: true }) endedAt!: Date | null;
  @Index()
  @Column('text')
  programHash!: string;
  @Column('integer') lines!: number;
  @Column('integer') doneLine!: number;
  @Column('real') plannedS!: number;
  @Column('real') machineS!: number;
  /** The sheets that it burns on, and whether they are fresh; null on record of earlier versions. */
  @Column('simple-json', { nullable: true }) uses!: { stock: Run['stock']; sheets: Sheet[] } | null;
  /** Who sent it; null where nobody said. */
  @Column('text', { nullable: true }) by!: string | null;
  /** What it was planned by; null on record of earlier versions. */
  @Column('simple-json', { nullable: true }) basis!: RunBasis | null;
  /** The run of whose program this is the rest, and from which of its lines. */
  @Column('text', { nullable: true }) afterRunId!: string | null;
  @Column('integer', { nullable: true }) fromLine!: number | null;
  /** The sheets that it took from stock. */
  @Column('simple-json') taken!: TakenSheet[];
}

/** What the bed looked like after a run, as the machine showed it; lengths in mm, its points gzipped. */
@Entity('burnt_pictures')
export class BurntPictureEntity {
  @PrimaryColumn('text') runId!: string;
  @ManyToOne(() => RunEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'runId' })
  run!: RunEntity;
  @Column('real') x!: number;
  @Column('real') y!: number;
  @Column('real') pitchMm!: number;
  @Column('integer') width!: number;
  @Column('integer') height!: number;
  @Column('blob') codes!: Buffer;
}
