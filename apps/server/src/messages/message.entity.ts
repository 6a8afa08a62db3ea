import type { MessageAnswer, MessageKind } from '@lambent/contracts';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryGeneratedColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';
import { JobEntity } from '../jobs/job.entities.ts';

/** What the workshop and the sender of a job write to each other. */
@Entity('messages')
export class MessageEntity extends Owned {
  @PrimaryGeneratedColumn() id!: number;
  @Index('messages_of_job')
  @Column('text')
  jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  @Column('datetime') at!: Date;
  @Column('text') from!: MessageAnswer['from'];
  /** The name of who wrote it; null where nobody said. */
  @Column('text', { nullable: true }) by!: string | null;
  @Column('text', { default: 'text' }) kind!: MessageKind;
  /** What was written; the name of the file where it tells of one. */
  @Column('text') text!: string;
}
