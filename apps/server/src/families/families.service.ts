import type { NumberFamily } from '@lambent/core/builders';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { unowned } from '../data/owned.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { NumberFamilyEntity } from './number-family.entity.ts';

/** The numbers of builders that the shop keeps, by their names; their changes are in families.writes.ts. */
@Injectable()
export class FamiliesService {
  constructor(
    @InjectRepository(NumberFamilyEntity) private readonly rows: Repository<NumberFamilyEntity>,
    private readonly writes: WriteQueue,
  ) {}

  async list(): Promise<NumberFamily[]> {
    return (await this.rows.find({ order: { name: 'ASC' } })).map(unowned);
  }

  add(json: Record<string, unknown>): Promise<NumberFamily> {
    return this.writes.do('addFamily', json);
  }

  delete(id: string): Promise<void> {
    return this.writes.do('deleteFamily', id);
  }
}
