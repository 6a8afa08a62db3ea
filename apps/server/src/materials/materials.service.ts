import type { FitDto, KerfDto } from '@lambent/contracts';
import type { FigureSource, Material } from '@lambent/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/errors.ts';
import { MaterialEntity, RecipeEntity } from '../data/entities.ts';
import { ShopService } from '../data/shop.service.ts';

/** What the shop learns of its materials. */
@Injectable()
export class MaterialsService {
  constructor(
    private readonly shop: ShopService,
    @InjectRepository(MaterialEntity) private readonly rows: Repository<MaterialEntity>,
    @InjectRepository(RecipeEntity) private readonly recipes: Repository<RecipeEntity>,
  ) {}

  /** @throws PlainError 409 when the material is not cut on that machine */
  async keepKerf(id: string, { machineId, mm, from, by }: KerfDto): Promise<Material> {
    const { name } = await this.row(id);
    const recipe = { materialId: id, machineId, operation: 'cut' as const };
    const { affected } = await this.recipes.update(recipe, { kerfMm: mm, kerfFrom: sourceNow(from, by) });
    if (!affected) {
      throw new PlainError(
        409,
        'no-recipe',
        `${name} has no cutting recipe on this machine to keep the kerf with. Choose the machine the piece was cut on.`,
      );
    }
    return this.material(id);
  }

  async keepFit(id: string, { fit, mm, from, by }: FitDto): Promise<Material> {
    await this.rows.manager.transaction(async (manager) => {
      const row = await manager.findOneBy(MaterialEntity, { id });
      if (!row) throw notFound('material');
      await manager.update(
        MaterialEntity,
        { id },
        { fits: { ...row.fits, [fit]: { mm, source: sourceNow(from, by) } } },
      );
    });
    return this.material(id);
  }

  private async row(id: string): Promise<MaterialEntity> {
    const row = await this.rows.findOneBy({ id });
    if (!row) throw notFound('material');
    return row;
  }

  private async material(id: string): Promise<Material> {
    const found = (await this.shop.materials()).find((material) => material.id === id);
    if (!found) throw notFound('material');
    return found;
  }
}

function sourceNow(from: FigureSource['from'], by: string): FigureSource {
  return { from, by, on: new Date().toISOString().slice(0, 10) };
}
