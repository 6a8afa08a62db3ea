import { Column } from 'typeorm';

/** The one site, and the one who works there, until there are several. */
const theSite = 'main';
const theActor = 'operator';

/** A row that belongs to a site, with who made it. */
export abstract class Owned {
  @Column('text', { default: theSite }) siteId!: string;
  @Column('text', { default: theActor }) actor!: string;
}

/** What a row is besides its owner. */
export type Unowned<Row extends Owned> = Omit<Row, keyof Owned>;

/** A row without whose it is. */
export function unowned<Row extends Owned>({ siteId: _, actor: __, ...row }: Row): Unowned<Row> {
  return row;
}
