import type { ColourKey } from '@lambent/core/colours';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { WriteQueue } from '../data/write-queue.ts';
import { ColourKeyEntity } from './colour-key.entity.ts';

/** The shop's colour keys, in its order; their changes are in colour-keys.writes.ts. */
@Injectable()
export class ColourKeysService {
  constructor(
    @InjectRepository(ColourKeyEntity) private readonly rows: Repository<ColourKeyEntity>,
    private readonly writes: WriteQueue,
  ) {}

  async list(): Promise<ColourKey[]> {
    return (await this.rows.find({ order: { position: 'ASC' } })).map(({ definition }) => definition);
  }

  add(json: Record<string, unknown>): Promise<ColourKey> {
    return this.writes.do('addKey', json);
  }

  change(id: string, json: Record<string, unknown>): Promise<ColourKey> {
    return this.writes.do('changeKey', id, json);
  }

  async order(ids: readonly string[]): Promise<ColourKey[]> {
    await this.writes.do('orderKeys', ids);
    return this.list();
  }

  delete(id: string): Promise<void> {
    return this.writes.do('deleteKey', id);
  }
}
