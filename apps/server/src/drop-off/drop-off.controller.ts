import {
  type BegunSending,
  BringInDto,
  type DropOffAnswer,
  type JobSendingAnswer,
  type MessageAnswer,
  type OwnSending,
  type QuoteAnswer,
  QuoteNumberDto,
  SendInDto,
  type SendingAnswer,
  SendingWishDto,
  WriteMessageDto,
} from '@lambent/contracts';
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  ParseIntPipe,
  Post,
  Put,
  Query,
  Req,
  type StreamableFile,
} from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { Describe, FileBody, fileOf, listOf, nothing, oneOf } from '../api/describe.ts';
import { attachedFile } from '../common/attached-file.ts';
import { sentBytes } from '../common/sent-bytes.ts';
import { CallersSession } from '../people/access.guard.ts';
import { MayCall, MayCallSignedIn } from '../people/may-call.ts';
import type { SessionEntity } from '../people/people.entities.ts';
import { DropOffService } from './drop-off.service.ts';
import { OfferService } from './offer.service.ts';

/** A file that is kept, and not shown in the page. */
@ApiTags('drop-off')
@Controller('api')
export class DropOffController {
  constructor(
    private readonly dropOff: DropOffService,
    private readonly offer: OfferService,
  ) {}

  @Get('drop-off')
  @MayCall('everybody')
  @Describe('What anybody may know of the shop before they send something in', oneOf('DropOff'))
  about(): Promise<DropOffAnswer> {
    return this.offer.about();
  }

  @Post('drop-off')
  @MayCall('everybody')
  @FileBody()
  @Describe(
    'Leaves a drawing; the answer holds the token of its link, once',
    oneOf('BegunSending', 201),
    409,
    413,
    415,
    422,
  )
  begin(
    @Query() { name }: BringInDto,
    @Req() request: Request,
    @CallersSession() session: SessionEntity | null,
  ): Promise<BegunSending> {
    return this.dropOff.begin(name ?? '', sentBytes(request, name || 'The file'), session?.personId ?? null);
  }

  @Get('drop-off/template.svg')
  @MayCall('everybody')
  @Describe('A page to draw on, with the colours of the shop’s key, as SVG', fileOf('image/svg+xml'), 409)
  async templateAsSvg(): Promise<StreamableFile> {
    return attachedFile(await this.offer.template('svg'), 'image/svg+xml', 'template.svg');
  }

  @Get('drop-off/template.pdf')
  @MayCall('everybody')
  @Describe('The same, as PDF', fileOf('application/pdf'), 409)
  async templateAsPdf(): Promise<StreamableFile> {
    return attachedFile(await this.offer.template('pdf'), 'application/pdf', 'template.pdf');
  }

  @Get('drop-off/:token')
  @MayCall('everybody')
  @Describe('A sending, as who has its link sees it', oneOf('Sending'), 404)
  get(@Param('token') token: string): Promise<SendingAnswer> {
    return this.dropOff.get(token);
  }

  @Get('drop-off/:token/picture.svg')
  @MayCall('everybody')
  @Describe('What was sent, as it would burn, as an SVG', fileOf<string>('image/svg+xml'), 404)
  @Header('Content-Type', 'image/svg+xml')
  @Header('Cache-Control', 'private, no-cache')
  picture(@Param('token') token: string): Promise<string> {
    return this.dropOff.picture(token);
  }

  @Put('drop-off/:token/wish')
  @MayCall('everybody')
  @Describe('Says how a sending is to be made', oneOf('Sending'), 400, 404, 409, 422)
  wish(@Param('token') token: string, @Body() wish: SendingWishDto): Promise<SendingAnswer> {
    return this.dropOff.wish(token, wish);
  }

  @Post('drop-off/:token/send')
  @MayCall('everybody')
  @Describe('Sends it in: it is a job of the shop from then on', oneOf('Sending', 201), 400, 404, 409)
  send(@Param('token') token: string, @Body() words: SendInDto): Promise<SendingAnswer> {
    return this.dropOff.send(token, words);
  }

  @Get('drop-off/:token/quotes')
  @MayCall('everybody')
  @Describe('What the workshop offers to make it for, the last first', listOf('Quote'), 404)
  quotes(@Param('token') token: string): Promise<QuoteAnswer[]> {
    return this.dropOff.quotes(token);
  }

  @Get('drop-off/:token/quotes/:number/quote.pdf')
  @MayCall('everybody')
  @Describe('A quote on paper', fileOf('application/pdf'), 404)
  async quotePdf(
    @Param('token') token: string,
    @Param('number', ParseIntPipe) number: number,
  ): Promise<StreamableFile> {
    return attachedFile(await this.dropOff.quotePdf(token, number), 'application/pdf', `quote-${number}.pdf`);
  }

  @Post('drop-off/:token/quotes/accepted')
  @MayCall('everybody')
  @HttpCode(200)
  @Describe('Says yes to a quote: it is made for that price', listOf('Quote'), 400, 404, 409)
  accept(@Param('token') token: string, @Body() { number }: QuoteNumberDto): Promise<QuoteAnswer[]> {
    return this.dropOff.accept(token, number);
  }

  @Get('drop-off/:token/messages')
  @MayCall('everybody')
  @Describe('What the workshop and the sender wrote to each other, the first first', listOf('Message'), 404)
  messages(@Param('token') token: string): Promise<MessageAnswer[]> {
    return this.dropOff.messages(token);
  }

  @Post('drop-off/:token/messages')
  @MayCall('everybody')
  @HttpCode(200)
  @Describe('Writes to the workshop', listOf('Message'), 400, 404, 409)
  write(@Param('token') token: string, @Body() { text }: WriteMessageDto): Promise<MessageAnswer[]> {
    return this.dropOff.write(token, text);
  }

  @Delete('drop-off/:token')
  @MayCall('everybody')
  @Describe('Withdraws it: its link leads nowhere, and its job is put away unless it was begun', nothing, 404)
  withdraw(@Param('token') token: string): Promise<void> {
    return this.dropOff.withdraw(token);
  }

  @Get('own-sendings')
  @MayCallSignedIn('member')
  @Describe('What who is signed in has sent in, the last first', listOf('OwnSending'), 401)
  own(@CallersSession() session: SessionEntity): Promise<OwnSending[]> {
    return this.dropOff.ownOf(session.personId);
  }

  @Get('jobs/:id/sending')
  @MayCall('operator')
  @Describe('What the sender of a job asked for; empty where it was not sent in here', listOf('JobSending'))
  ofJob(@Param('id') id: string): Promise<JobSendingAnswer[]> {
    return this.dropOff.ofJob(id);
  }
}
