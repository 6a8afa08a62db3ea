import { Column, Entity, PrimaryColumn } from 'typeorm';
import { Owned } from '../data/owned.ts';

/** A picture that drawings show, under the SHA-256 of the file it came from. */
@Entity('pictures')
export class PictureEntity {
  @PrimaryColumn('text') id!: string;
  @Column('text') mediaType!: string;
  @Column('blob') bytes!: Buffer;
  @Column('datetime') addedAt!: Date;
}

/** A font that the shop loaded. */
@Entity('fonts')
export class FontEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  @Column('text') family!: string;
  @Column('boolean') bold!: boolean;
  @Column('boolean') italic!: boolean;
  @Column('blob') bytes!: Buffer;
  @Column('datetime') addedAt!: Date;
}
