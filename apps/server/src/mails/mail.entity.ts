import { Column, Entity, Index, PrimaryGeneratedColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';

/** A mail that is to be sent, or was. */
@Entity('mails')
export class MailEntity extends Owned {
  @PrimaryGeneratedColumn() id!: number;
  @Column('text') to!: string;
  @Column('text') subject!: string;
  /** What it says; empty once it was sent, since it may hold the link of a sending. */
  @Column('text') text!: string;
  /** The id of the sending that it is about: programs for mail show all of one together. */
  @Column('text') thread!: string;
  @Column('datetime') at!: Date;
  @Column('datetime', { nullable: true }) sentAt!: Date | null;
  /** How often it was tried, and when it is tried again; null once it was sent, or given up. */
  @Column('integer', { default: 0 }) tries!: number;
  @Index('mails_by_next_try')
  @Column('datetime', { nullable: true })
  nextTryAt!: Date | null;
  /** Why it could not be sent the last time. */
  @Column('text', { nullable: true }) trouble!: string | null;
}
