import type { ColourKey } from '@lambent/core';
import { Controller, Get } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { ShopService } from '../data/shop.service.ts';

@ApiTags('colour keys')
@Controller('api/colour-keys')
export class ColourKeysController {
  constructor(private readonly shop: ShopService) {}

  @Get()
  list(): Promise<ColourKey[]> {
    return this.shop.keys();
  }
}
