import type { MailsAnswer } from '@lambent/contracts';
import { Controller, Get, HttpCode, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { MailsService } from './mails.service.ts';

@ApiTags('settings')
@Controller('api/mails')
export class MailsController {
  constructor(private readonly mails: MailsService) {}

  @Get()
  @MayCall('manager')
  @Describe('The last mails of the shop, and how they stand', oneOf('Mails'))
  told(): Promise<MailsAnswer> {
    return this.mails.told();
  }

  @Post('again')
  @MayCall('manager')
  @HttpCode(200)
  @Describe('Tries again what could not be sent', oneOf('Mails'))
  tryAgain(): Promise<MailsAnswer> {
    return this.mails.tryAgain();
  }
}
