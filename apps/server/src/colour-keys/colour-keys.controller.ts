import { KeyOrderDto } from '@lambent/contracts';
import type { ColourKey } from '@lambent/core/colours';
import { Body, Controller, Delete, Get, Param, Post, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, JsonBody, listOf, nothing, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { ColourKeysService } from './colour-keys.service.ts';

@ApiTags('colour keys')
@Controller('api/colour-keys')
export class ColourKeysController {
  constructor(private readonly keys: ColourKeysService) {}

  @Get()
  @MayCall('operator')
  @Describe('The colour keys of the shop in its order; the first is the one that new jobs get', listOf('ColourKey'))
  list(): Promise<ColourKey[]> {
    return this.keys.list();
  }

  @Post()
  @MayCall('manager')
  @JsonBody('ColourKey')
  @Describe('Takes a key, under an id of its own', oneOf('ColourKey', 201), 400)
  add(@Body() body: Record<string, unknown>): Promise<ColourKey> {
    return this.keys.add(body);
  }

  @Put('order')
  @MayCall('manager')
  @Describe('Puts the keys in an order', listOf('ColourKey'), 400)
  order(@Body() { ids }: KeyOrderDto): Promise<ColourKey[]> {
    return this.keys.order(ids);
  }

  @Put(':id')
  @MayCall('manager')
  @JsonBody('ColourKey')
  @Describe('Changes a key', oneOf('ColourKey'), 400, 404)
  change(@Param('id') id: string, @Body() body: Record<string, unknown>): Promise<ColourKey> {
    return this.keys.change(id, body);
  }

  @Delete(':id')
  @MayCall('manager')
  @Describe('Deletes a key that no job goes by', nothing, 404, 409)
  delete(@Param('id') id: string): Promise<void> {
    return this.keys.delete(id);
  }
}
