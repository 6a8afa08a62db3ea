import type { Role } from '@lambent/contracts';
import { Column, CreateDateColumn, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';

@Entity('people')
export class PersonEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  @Column('text') name!: string;
  /** The name as it is compared: two people have two. */
  @Index('people_by_name', { unique: true })
  @Column('text')
  nameKey!: string;
  @Column('text') role!: Role;
  /** By argon2id, with its salt and its settings. */
  @Column('text') passwordHash!: string;
  @CreateDateColumn() createdAt!: Date;
  @Column('datetime', { nullable: true }) leftAt!: Date | null;
}

/** Where somebody is signed in: a browser that has the token. */
@Entity('sessions')
export class SessionEntity {
  @PrimaryColumn('text') tokenHash!: string;
  @Index('sessions_of_person')
  @Column('text')
  personId!: string;
  @ManyToOne(() => PersonEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'personId' })
  person!: PersonEntity;
  @Column('datetime') startedAt!: Date;
  /** About when it was used last. */
  @Column('datetime') usedAt!: Date;
}

/** By which somebody may join, once. */
@Entity('invitations')
export class InvitationEntity extends Owned {
  @PrimaryColumn('text') tokenHash!: string;
  @Column('text') role!: Role;
  @Column('datetime') validUntil!: Date;
}
