import type { DrawingDifference, SendingLook, SendingWishDto } from '@lambent/contracts';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';
import { JobEntity } from '../jobs/job.entities.ts';

/** What was said when a sending was sent in. */
export interface SentWords {
  readonly name: string;
  readonly title: string;
  readonly notes: string;
  readonly wantedBy: string | null;
  /** Where mails about it go; empty, or left out, for none. */
  readonly mail?: string;
}

/** What somebody left at the drop-off: a draft until it is sent in, and the way to follow its job from then on. */
@Entity('sendings')
export class SendingEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  /** Of the token that its link holds; null once the link was withdrawn. */
  @Index('sendings_by_token', { unique: true })
  @Column('text', { nullable: true })
  tokenHash!: string | null;
  @Column('text') file!: string;
  /** The file byte for byte, until it is kept with the job. */
  @Column('blob', { nullable: true }) bytes!: Buffer | null;
  @Column('simple-json') wish!: SendingWishDto;
  @Column('simple-json') look!: SendingLook;
  /** As SVG, and how often it was made. */
  @Column('text') picture!: string;
  @Column('integer') looks!: number;
  @Column('datetime') startedAt!: Date;
  @Index('sendings_by_time')
  @Column('datetime', { nullable: true })
  sentAt!: Date | null;
  @Column('simple-json', { nullable: true }) words!: SentWords | null;
  /** Who was signed in; null for a stranger. */
  @Index('sendings_of_person')
  @Column('text', { nullable: true })
  personId!: string | null;
  /** What it is to replace: it is a new file then, and makes no job of its own. Null otherwise. */
  @Index('sendings_that_replace')
  @Column('text', { nullable: true })
  replacesId!: string | null;
  @ManyToOne(() => SendingEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'replacesId' })
  replaces!: SendingEntity | null;
  /** What changes of that, and a picture of it as SVG; null where it replaces nothing. */
  @Column('simple-json', { nullable: true }) difference!: DrawingDifference | null;
  @Column('text', { nullable: true }) differencePicture!: string | null;
  /** Which of the job's originals it is; null until it is sent in, and where that was not kept yet: it is the first one then. */
  @Column('integer', { nullable: true }) originalId!: number | null;
  @Index('sendings_of_job')
  @Column('text', { nullable: true })
  jobId!: string | null;
  @ManyToOne(() => JobEntity, { onDelete: 'SET NULL' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity | null;
}
