import type { QuoteLineDto } from '@lambent/contracts';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryGeneratedColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';
import { JobEntity } from '../jobs/job.entities.ts';

/** What a job was offered for. One of a job at most is open or accepted; the others were withdrawn. */
@Entity('quotes')
export class QuoteEntity extends Owned {
  @PrimaryGeneratedColumn() number!: number;
  @Index('quotes_of_job')
  @Column('text')
  jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  @Column('simple-json') lines!: QuoteLineDto[];
  /** What the lines add up to, in the currency that the shop had then. */
  @Column('real') total!: number;
  @Column('text') currency!: string;
  /** The last day on which it can be accepted, such as 2026-12-24. */
  @Column('text') validUntil!: string;
  @Column('text') terms!: string;
  @Column('datetime') madeAt!: Date;
  @Column('text', { nullable: true }) by!: string | null;
  @Column('datetime', { nullable: true }) acceptedAt!: Date | null;
  @Column('text', { nullable: true }) acceptedBy!: string | null;
  @Column('datetime', { nullable: true }) withdrawnAt!: Date | null;
}
