import { randomUUID } from 'node:crypto';
import { type ColourKey, keyFromJson } from '@lambent/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/errors.ts';
import { ColourKeyEntity } from '../data/entities.ts';

/** The shop's colour keys, in its order. */
@Injectable()
export class ColourKeysService {
  constructor(@InjectRepository(ColourKeyEntity) private readonly rows: Repository<ColourKeyEntity>) {}

  async list(): Promise<ColourKey[]> {
    return (await this.rows.find({ order: { position: 'ASC' } })).map(({ definition }) => definition);
  }

  /** @throws NotAKey when it is none */
  async add(json: Record<string, unknown>): Promise<ColourKey> {
    const key = keyFromJson({ ...json, id: randomUUID() });
    return this.rows.manager.transaction(async (manager) => {
      const position = await manager.count(ColourKeyEntity);
      await manager.insert(ColourKeyEntity, { id: key.id, position, definition: key });
      return key;
    });
  }

  /** @throws NotAKey when it is none */
  async change(id: string, json: Record<string, unknown>): Promise<ColourKey> {
    const key = keyFromJson({ ...json, id });
    const { affected } = await this.rows.update({ id }, { definition: key });
    if (!affected) throw notFound('colour key');
    return key;
  }

  async order(ids: readonly string[]): Promise<ColourKey[]> {
    await this.rows.manager.transaction(async (manager) => {
      const known = await manager.find(ColourKeyEntity, { order: { position: 'ASC' } });
      const rest = known.map(({ id }) => id).filter((id) => !ids.includes(id));
      for (const [position, id] of [...ids, ...rest].entries())
        await manager.update(ColourKeyEntity, { id }, { position });
    });
    return this.list();
  }

  /** @throws PlainError 409 when it is the last one, or jobs go by it */
  async remove(id: string): Promise<void> {
    await this.rows.manager.transaction(async (manager) => {
      const row = await manager.findOneBy(ColourKeyEntity, { id });
      if (!row) throw notFound('colour key');
      if ((await manager.count(ColourKeyEntity)) === 1) {
        throw new PlainError(409, 'last-key', 'A shop has one colour key at least. Make another before this one goes.');
      }
      const [{ used }] = (await manager.query(
        `SELECT count(*) AS used FROM versions
         JOIN jobs ON jobs.id = versions.jobId AND jobs.version = versions.number
         WHERE json_extract(versions.settings, '$.keyId') = ?`,
        [id],
      )) as [{ used: number }];
      if (used > 0) {
        const jobs = used === 1 ? '1 job goes' : `${used} jobs go`;
        throw new PlainError(
          409,
          'key-in-use',
          `${jobs} by “${row.definition.name}”: without it their colours would mean something else. Choose another key there first.`,
        );
      }
      await manager.delete(ColourKeyEntity, { id });
    });
  }
}
