import type { NumberFamily } from '@lambent/core/builders';
import { Body, Controller, Delete, Get, Param, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, JsonBody, listOf, nothing, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { FamiliesService } from './families.service.ts';

@ApiTags('number families')
@Controller('api/number-families')
export class FamiliesController {
  constructor(private readonly families: FamiliesService) {}

  @Get()
  @MayCall('operator')
  @Describe('The numbers of builders that the shop keeps, by their names', listOf('NumberFamily'))
  list(): Promise<NumberFamily[]> {
    return this.families.list();
  }

  @Post()
  @MayCall('operator')
  @JsonBody('NumberFamily')
  @Describe('Keeps numbers under a name, under an id of their own', oneOf('NumberFamily', 201), 400, 409)
  add(@Body() body: Record<string, unknown>): Promise<NumberFamily> {
    return this.families.add(body);
  }

  @Delete(':id')
  @MayCall('operator')
  @Describe('Deletes kept numbers', nothing, 404)
  delete(@Param('id') id: string): Promise<void> {
    return this.families.delete(id);
  }
}
