import { randomUUID } from 'node:crypto';
import { type ColourKey, keyFromJson } from '@lambent/core/colours';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { ColourKeyEntity } from './colour-key.entity.ts';

/*
 * Every change of the colour keys. What is no key is refused with NotAKey.
 */

/** Adds a colour key behind the others, under a new id. @throws NotAKey where it is none */
export async function addKey(writing: Writing, json: Record<string, unknown>): Promise<ColourKey> {
  const key = keyFromJson({ ...json, id: randomUUID() });
  const position = await writing.count(ColourKeyEntity);
  await writing.insert(ColourKeyEntity, { id: key.id, position, definition: key });
  return key;
}

/** @throws PlainError 404 where there is no such key, NotAKey where what is sent is none */
export async function changeKey(writing: Writing, id: string, json: Record<string, unknown>): Promise<ColourKey> {
  const key = keyFromJson({ ...json, id });
  const { affected } = await writing.update(ColourKeyEntity, { id }, { definition: key });
  if (!affected) throw notFound('colour key');
  return key;
}

/** Puts the keys in an order; those that it does not name come last. */
export async function orderKeys(writing: Writing, ids: readonly string[]): Promise<void> {
  const known = await writing.find(ColourKeyEntity, { order: { position: 'ASC' } });
  const rest = known.map(({ id }) => id).filter((id) => !ids.includes(id));
  for (const [position, id] of [...ids, ...rest].entries()) await writing.update(ColourKeyEntity, { id }, { position });
}

/** @throws PlainError 409 when it is the last one, or jobs go by it, also deleted ones that can be taken back */
export async function deleteKey(writing: Writing, id: string): Promise<void> {
  const row = await writing.findOneBy(ColourKeyEntity, { id });
  if (!row) throw notFound('colour key');
  if ((await writing.count(ColourKeyEntity)) === 1) {
    throw new PlainError(409, 'last-key', 'A shop has one colour key at least. Make another before this one goes.');
  }
  const [{ used, deleted }] = (await writing.query(
    `SELECT count(*) AS used, count(jobs.deletedAt) AS deleted FROM versions
     JOIN jobs ON jobs.id = versions.jobId AND jobs.version = versions.number
     WHERE json_extract(versions.settings, '$.keyId') = ?`,
    [id],
  )) as [{ used: number; deleted: number }];
  if (used > 0) {
    const jobs = used === 1 ? '1 job goes' : `${used} jobs go`;
    const gone = deleted === 0 ? '' : ` (${deleted} of them deleted, and not gone yet)`;
    throw new PlainError(
      409,
      'key-in-use',
      `${jobs} by “${row.definition.name}”${gone}: without it their colours would mean something else. Choose another key there first.`,
    );
  }
  await writing.delete(ColourKeyEntity, { id });
}
