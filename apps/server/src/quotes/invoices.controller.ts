import { DaysDto } from '@lambent/contracts';
import { Controller, Get, Query, type StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, fileOf } from '../api/describe.ts';
import { attachedCsv } from '../common/attached-file.ts';
import { MayCall } from '../people/may-call.ts';
import { InvoicesService } from './invoices.service.ts';

@ApiTags('quotes')
@Controller('api')
export class InvoicesController {
  constructor(private readonly invoices: InvoicesService) {}

  @Get('invoices.csv')
  @MayCall('operator')
  @Describe(
    'What was burnt within some days and what it costs, a row for each line of its price',
    fileOf('text/csv'),
    400,
  )
  async csv(@Query() { from, until }: DaysDto): Promise<StreamableFile> {
    return attachedCsv(await this.invoices.csv(from, until), `invoices-${from}-${until}.csv`);
  }
}
