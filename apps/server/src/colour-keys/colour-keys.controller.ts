import { KeyOrderDto } from '@lambent/contracts';
import type { ColourKey } from '@lambent/core/colours';
import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { ColourKeysService } from './colour-keys.service.ts';

@ApiTags('colour keys')
@Controller('api/colour-keys')
export class ColourKeysController {
  constructor(private readonly keys: ColourKeysService) {}

  @Get()
  list(): Promise<ColourKey[]> {
    return this.keys.list();
  }

  /** Takes a key, under an id of its own. */
  @Post()
  add(@Body() body: Record<string, unknown>): Promise<ColourKey> {
    return this.keys.add(body);
  }

  /** Puts the keys in an order; the first is the one new jobs get. */
  @Put('order')
  order(@Body() { ids }: KeyOrderDto): Promise<ColourKey[]> {
    return this.keys.order(ids);
  }

  @Put(':id')
  change(@Param('id') id: string, @Body() body: Record<string, unknown>): Promise<ColourKey> {
    return this.keys.change(id, body);
  }

  @Delete(':id')
  @HttpCode(204)
  delete(@Param('id') id: string): Promise<void> {
    return this.keys.delete(id);
  }
}
