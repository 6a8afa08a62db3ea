import { InvoicesDto } from '@lambent/contracts';
import { Controller, Get, Query, type StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, fileOf } from '../api/describe.ts';
import { attachedFile } from '../common/attached-file.ts';
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
  async csv(@Query() { from, until }: InvoicesDto): Promise<StreamableFile> {
    const csv = await this.invoices.csv(from, until);
    // With a mark of its order of bytes, table programs take it for UTF-8.
    return attachedFile(Buffer.from(`\uFEFF${csv}`), 'text/csv; charset=utf-8', `invoices-${from}-${until}.csv`);
  }
}
