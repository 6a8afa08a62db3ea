import { Column, type EntityManager, type EntityTarget, type ObjectLiteral } from 'typeorm';

/** The one site, and who works there where nobody is signed in. */
const theSite = 'main';
const theActor = 'operator';

/** A row that belongs to a site, with the id of the person who made it. */
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

/** Writes as somebody: what is inserted is theirs. */
export function signedWriting(manager: EntityManager, actor: string): EntityManager {
  const insert = (entity: EntityTarget<ObjectLiteral>, row: ObjectLiteral) =>
    manager.insert(entity, typeof entity === 'function' && entity.prototype instanceof Owned ? { actor, ...row } : row);
  return Object.assign(Object.create(manager), { insert });
}
