import { DaysDto, type FiguresAnswer, FigureTableDto } from '@lambent/contracts';
import { Controller, Get, Query, type StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, fileOf, oneOf } from '../api/describe.ts';
import { attachedCsv } from '../common/attached-file.ts';
import { MayCall } from '../people/may-call.ts';
import { FiguresService } from './figures.service.ts';

@ApiTags('settings')
@Controller('api')
export class FiguresController {
  constructor(private readonly figures: FiguresService) {}

  @Get('figures')
  @MayCall('operator')
  @Describe('What the shop did within some days: time, money and sheets', oneOf('Figures'), 400)
  get(@Query() { from, until }: DaysDto): Promise<FiguresAnswer> {
    return this.figures.get(from, until);
  }

  @Get('figures.csv')
  @MayCall('operator')
  @Describe('The same, one table of it, as comma-separated values', fileOf('text/csv'), 400)
  async csv(@Query() { table, from, until }: FigureTableDto): Promise<StreamableFile> {
    return attachedCsv(await this.figures.csv(table, from, until), `${table}-${from}-${until}.csv`);
  }
}
