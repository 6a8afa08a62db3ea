import { type JobFileLook, type JobFileTaken, TakeJobFileDto } from '@lambent/contracts';
import { Controller, Get, HttpCode, Param, Post, Query, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Describe, FileBody, fileOf, oneOf } from '../api/describe.ts';
import { sentBytes } from '../common/sent-bytes.ts';
import { MayCall } from '../people/may-call.ts';
import { JobFilesService } from './job-files.service.ts';

@ApiTags('job files')
@Controller('api/job-files')
export class JobFilesController {
  constructor(private readonly files: JobFilesService) {}

  @Get(':id')
  @MayCall('operator')
  @Describe('A job as one file, with all that it needs in another shop', fileOf<void>('application/zip'), 404, 409)
  async get(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const { name, bytes } = await this.files.make(id);
    response.type('application/zip').attachment(name).send(Buffer.from(bytes));
  }

  @Post('look')
  @MayCall('operator')
  @HttpCode(200)
  @FileBody()
  @Describe(
    'What is in the file of a job, which is the body, and what of it the shop has',
    oneOf('JobFileLook'),
    400,
    422,
  )
  look(@Req() request: Request): Promise<JobFileLook> {
    return this.files.look(sentBytes(request, 'The file'));
  }

  @Post()
  @MayCall('operator')
  @FileBody()
  @Describe('Puts a job on the Desk from its file, which is the body', oneOf('JobFileTaken', 201), 400, 409, 413, 422)
  take(@Query() wanted: TakeJobFileDto, @Req() request: Request): Promise<JobFileTaken> {
    return this.files.take(sentBytes(request, 'The file'), wanted);
  }
}
