import { MakeQuoteDto, type QuoteAnswer, type QuoteDraft, QuoteNumberDto } from '@lambent/contracts';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, type StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, fileOf, listOf, oneOf } from '../api/describe.ts';
import { attachedFile } from '../common/attached-file.ts';
import { MayCall } from '../people/may-call.ts';
import { QuotesService } from './quotes.service.ts';

@ApiTags('quotes')
@Controller('api/jobs/:id')
export class QuotesController {
  constructor(private readonly quotes: QuotesService) {}

  @Get('quote-draft')
  @MayCall('operator')
  @Describe('What a quote of a job begins with: its price by the price list, in parts', oneOf('QuoteDraft'), 404, 422)
  draft(@Param('id') id: string): Promise<QuoteDraft> {
    return this.quotes.draft(id);
  }

  @Get('quotes')
  @MayCall('operator')
  @Describe('What a job was offered for, the last first', listOf('Quote'))
  list(@Param('id') id: string): Promise<QuoteAnswer[]> {
    return this.quotes.ofJob(id);
  }

  @Get('quotes/:number/quote.pdf')
  @MayCall('operator')
  @Describe('A quote on paper', fileOf('application/pdf'), 404)
  async pdf(@Param('id') id: string, @Param('number', ParseIntPipe) number: number): Promise<StreamableFile> {
    return attachedFile(await this.quotes.pdf(id, number), 'application/pdf', `quote-${number}.pdf`);
  }

  @Post('quotes')
  @MayCall('operator')
  @HttpCode(200)
  @Describe('Offers a job for a price, in place of what it was offered for before', listOf('Quote'), 400, 404, 409)
  make(@Param('id') id: string, @Body() quote: MakeQuoteDto): Promise<QuoteAnswer[]> {
    return this.quotes.make(id, quote);
  }

  @Post('quotes/accepted')
  @MayCall('operator')
  @HttpCode(200)
  @Describe('Notes that a quote was accepted, by word of mouth', listOf('Quote'), 400, 404, 409)
  accept(@Param('id') id: string, @Body() { number, by }: QuoteNumberDto): Promise<QuoteAnswer[]> {
    return this.quotes.accept(id, number, by?.trim() || null);
  }

  @Post('quotes/withdrawn')
  @MayCall('operator')
  @HttpCode(200)
  @Describe('Withdraws a quote', listOf('Quote'), 400, 404, 409)
  withdraw(@Param('id') id: string, @Body() { number, by }: QuoteNumberDto): Promise<QuoteAnswer[]> {
    return this.quotes.withdraw(id, number, by?.trim() || null);
  }
}
