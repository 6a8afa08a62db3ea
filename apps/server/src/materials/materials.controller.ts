import type { Material } from '@lambent/core';
import { Controller, Get } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { ShopService } from '../data/shop.service.ts';

@ApiTags('materials')
@Controller('api/materials')
export class MaterialsController {
  constructor(private readonly shop: ShopService) {}

  /** Every material with its recipes. */
  @Get()
  list(): Promise<Material[]> {
    return this.shop.materials();
  }
}
