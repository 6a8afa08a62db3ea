import type { Awaits, JobState } from '@lambent/contracts';
import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { Owned } from '../data/owned.ts';
import type { StoredSettings } from './pack.ts';

@Entity('jobs')
export class JobEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  @Column('text') title!: string;
  @Column('text') project!: string;
  @Column('integer') version!: number;
  @CreateDateColumn() createdAt!: Date;
  @Column('datetime') updatedAt!: Date;
  /** Grows with every change of any job: what the Desk is sorted by, since clocks can be set back. */
  @Index()
  @Column('integer')
  changed!: number;
  @Column('datetime', { nullable: true }) deletedAt!: Date | null;
  /** Where it stands in the shop. */
  @Index('jobs_by_state')
  @Column('text', { default: 'being prepared' })
  state!: JobState;
  @Column('datetime') stateSince!: Date;
  /** Whose answer it waits for, whatever else it waits for. */
  @Column('text', { nullable: true }) awaits!: Awaits;
  /** The day until which it is wanted, such as 2026-12-24. */
  @Column('text', { nullable: true }) wantedBy!: string | null;
  /** Of its last version: for which machine it is, on what, and whose (job-summary.ts). */
  @Column('text', { default: '' }) machineId!: string;
  @Column('text', { nullable: true }) materialId!: string | null;
  @Column('text', { default: '' }) whose!: string;
  /** All in it that is searched, as `plainWords` writes it. */
  @Column('text', { default: '' }) words!: string;
}

/** A drawing as gzipped JSON, kept once however many versions hold it. */
@Entity('drawings')
export class DrawingEntity {
  @PrimaryColumn('text') hash!: string;
  @Column('integer') itemCount!: number;
  @Column('blob') json!: Buffer;
}

/** Which pictures a drawing shows. */
@Entity('drawing_pictures')
export class DrawingPictureEntity {
  @PrimaryColumn('text') drawingHash!: string;
  @ManyToOne(() => DrawingEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'drawingHash' })
  drawing!: DrawingEntity;
  @Index()
  @PrimaryColumn('text')
  pictureId!: string;
}

@Entity('versions')
@Index(['jobId', 'number'], { unique: true })
export class VersionEntity extends Owned {
  @PrimaryGeneratedColumn() id!: number;
  @Column('text') jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  @Column('integer') number!: number;
  @Column('text') edit!: string;
  @Column('datetime') savedAt!: Date;
  /** The document without its drawing. */
  @Column('simple-json') settings!: StoredSettings;
  @Index()
  @Column('text')
  drawingHash!: string;
  @ManyToOne(() => DrawingEntity)
  @JoinColumn({ name: 'drawingHash' })
  drawing!: DrawingEntity;
}

/** A file as it was brought in, byte for byte. */
@Entity('originals')
export class OriginalEntity extends Owned {
  @PrimaryGeneratedColumn() id!: number;
  @Index()
  @Column('text')
  jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  @Column('text') name!: string;
  @Column('text') format!: string;
  @Column('text') sha256!: string;
  @Column('blob') bytes!: Buffer;
  @Column('datetime') addedAt!: Date;
}
