import type { BookChange, BookTaken, FitDto, KerfDto } from '@lambent/contracts';
import type { Material } from '@lambent/core/recipes';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound } from '../common/plain-error.ts';
import { unowned } from '../data/owned.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { BookChangeEntity, MaterialEntity } from './book.entities.ts';
import { materialOf } from './book-rows.ts';

/** The recipe book: what is read of it, and its changes (book.writes.ts), each answered with the material since. */
@Injectable()
export class BookService {
  constructor(
    @InjectRepository(MaterialEntity) private readonly rows: Repository<MaterialEntity>,
    @InjectRepository(BookChangeEntity) private readonly changes: Repository<BookChangeEntity>,
    private readonly writes: WriteQueue,
  ) {}

  /** Every material with its recipes, in the order that the shop keeps them. */
  async materials(): Promise<Material[]> {
    const rows = await this.rows.find({
      order: { position: 'ASC', recipes: { id: 'ASC' } },
      relations: { recipes: true },
    });
    return rows.map(materialOf);
  }

  /** @throws PlainError 400 when it is none; 409 when there is one of that id */
  async addMaterial(author: string, json: Record<string, unknown>): Promise<Material> {
    return this.material(await this.writes.do('addMaterial', author, json));
  }

  /** @throws PlainError 400 when it is none; 409 when it was changed meanwhile */
  async changeMaterial(id: string, author: string, version: number, json: Record<string, unknown>): Promise<Material> {
    await this.writes.do('changeMaterial', author, id, version, json);
    return this.material(id);
  }

  /** @throws PlainError 400 when it is none; 409 when there is one for the same */
  async addRecipe(materialId: string, author: string, json: Record<string, unknown>): Promise<Material> {
    await this.writes.do('addRecipe', author, materialId, json);
    return this.material(materialId);
  }

  /** @throws PlainError 400 when it is none; 409 when it was changed meanwhile, or there is one for the same */
  async changeRecipe(id: number, author: string, version: number, json: Record<string, unknown>): Promise<Material> {
    return this.material(await this.writes.do('changeRecipe', author, id, version, json));
  }

  /** @throws PlainError 409 when the machine has no cutting recipe to keep it with */
  async keepKerf(materialId: string, kerf: KerfDto): Promise<Material> {
    await this.writes.do('keepKerf', materialId, { ...kerf });
    return this.material(materialId);
  }

  async keepFit(id: string, fit: FitDto): Promise<Material> {
    await this.writes.do('keepFit', id, { ...fit });
    return this.material(id);
  }

  /** The changes of a material and its recipes, the latest first. */
  async history(materialId: string): Promise<BookChange[]> {
    if (!(await this.rows.existsBy({ id: materialId }))) throw notFound('material');
    const rows = await this.changes.find({ where: { materialId }, order: { id: 'DESC' }, take: 500 });
    return rows.map((row) => ({ ...unowned(row), at: row.at.toISOString() }));
  }

  /** Takes one change back. @throws PlainError 409 when what it changed was changed again */
  async undo(id: number, author: string): Promise<Material> {
    return this.material(await this.writes.do('undoBookChange', author, id));
  }

  /** @throws PlainError 400 when it is no book at all */
  takeIn(author: string, format: 'json' | 'csv', text: string, take: 'good' | 'all-or-nothing'): Promise<BookTaken> {
    return this.writes.do('takeBookIn', author, format, text, take);
  }

  private async material(id: string): Promise<Material> {
    const row = await this.rows.findOne({
      where: { id },
      relations: { recipes: true },
      order: { recipes: { id: 'ASC' } },
    });
    if (!row) throw notFound('material');
    return materialOf(row);
  }
}
