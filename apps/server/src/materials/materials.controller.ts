import { FitDto, KerfDto } from '@lambent/contracts';
import type { Material } from '@lambent/core';
import { Body, Controller, Get, Param, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { ShopService } from '../data/shop.service.ts';
import { MaterialsService } from './materials.service.ts';

@ApiTags('materials')
@Controller('api/materials')
export class MaterialsController {
  constructor(
    private readonly shop: ShopService,
    private readonly materials: MaterialsService,
  ) {}

  /** Every material with its recipes. */
  @Get()
  list(): Promise<Material[]> {
    return this.shop.materials();
  }

  /** Keeps the width of the burn with the material's cutting recipe on a machine. */
  @Put(':id/kerf')
  kerf(@Param('id') id: string, @Body() kerf: KerfDto): Promise<Material> {
    return this.materials.keepKerf(id, kerf);
  }

  /** Keeps what a fit is in a material. */
  @Put(':id/fit')
  fit(@Param('id') id: string, @Body() fit: FitDto): Promise<Material> {
    return this.materials.keepFit(id, fit);
  }
}
