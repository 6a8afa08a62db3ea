import { type MessageAnswer, WriteMessageDto } from '@lambent/contracts';
import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, listOf, nothing } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { MessagesService } from './messages.service.ts';

@ApiTags('jobs')
@Controller('api/jobs/:id')
export class MessagesController {
  constructor(private readonly messages: MessagesService) {}

  @Get('messages')
  @MayCall('operator')
  @Describe('What the workshop and the sender of a job wrote to each other, the first first', listOf('Message'))
  list(@Param('id') id: string): Promise<MessageAnswer[]> {
    return this.messages.ofJob(id);
  }

  @Post('messages')
  @MayCall('operator')
  @HttpCode(200)
  @Describe(
    'Writes to the sender of a job, which waits for their answer from then on',
    listOf('Message'),
    400,
    404,
    409,
  )
  write(@Param('id') id: string, @Body() { text, by }: WriteMessageDto): Promise<MessageAnswer[]> {
    return this.messages.toSender(id, text, by?.trim() || null);
  }

  @Delete('awaits')
  @MayCall('operator')
  @Describe('Says that no answer is waited for any more', nothing, 404)
  endAwaiting(@Param('id') id: string): Promise<void> {
    return this.messages.endAwaiting(id);
  }
}
