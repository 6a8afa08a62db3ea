import { Column, Entity, Index, PrimaryGeneratedColumn } from 'typeorm';
import { Owned } from './owned.ts';

/** What somebody who was signed in did. */
@Entity('deeds')
export class DeedEntity extends Owned {
  @PrimaryGeneratedColumn() id!: number;
  @Index('deeds_by_time')
  @Column('datetime')
  at!: Date;
  /** The name of the write. */
  @Column('text') what!: string;
  /** The id of what it was done to, and how that was called then; null where it was done to nothing that has a name. */
  @Column('text', { nullable: true }) subjectId!: string | null;
  @Column('text', { nullable: true }) subject!: string | null;
}
