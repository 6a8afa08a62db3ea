import {
  BringInDto,
  CreateJobDto,
  type DeletedJob,
  DescribeJobDto,
  type DrawingTaken,
  type OriginalAnswer,
  ReadDrawingDto,
  RenameJobDto,
  SaveJobDto,
  type VersionAnswer,
} from '@lambent/contracts';
import { jobMediaType } from '@lambent/core/document';
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  Param,
  ParseIntPipe,
  Patch,
  Post,
  Put,
  Query,
  Req,
  Res,
  StreamableFile,
} from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Describe, FileBody, fileOf, JsonBody, listOf, nothing, oneOf, writtenOf } from '../api/describe.ts';
import { sentBytes } from '../common/sent-bytes.ts';
import { MayCall } from '../people/may-call.ts';
import { JobPicturesService } from './job-pictures.service.ts';
import { JobsService, longestName } from './jobs.service.ts';

@ApiTags('jobs')
@Controller('api/jobs')
export class JobsController {
  constructor(
    private readonly jobs: JobsService,
    private readonly pictures: JobPicturesService,
  ) {}

  @Post()
  @MayCall('operator')
  @Describe('A new job with nothing drawn', writtenOf('Job', 201), 400)
  async create(@Body() wanted: CreateJobDto): Promise<StreamableFile> {
    return json(await this.jobs.answer(await this.jobs.create(wanted)));
  }

  @Get('deleted')
  @MayCall('operator')
  @Describe('The jobs that were deleted and can be taken back', listOf('DeletedJob'))
  deleted(): Promise<DeletedJob[]> {
    return this.jobs.deleted();
  }

  @Get(':id')
  @MayCall('operator')
  @Describe('A job with its document, as of its last version', writtenOf('Job'), 404)
  async get(@Param('id') id: string): Promise<StreamableFile> {
    return json(await this.jobs.answer(id));
  }

  @Delete(':id')
  @MayCall('operator')
  @Describe('Takes a job off the Desk; for 30 days it can be taken back', nothing, 404)
  delete(@Param('id') id: string): Promise<void> {
    return this.jobs.delete(id);
  }

  @Post(':id/take-back')
  @MayCall('operator')
  @Describe('Takes a deleted job back', nothing, 404, 409)
  takeBack(@Param('id') id: string): Promise<void> {
    return this.jobs.takeBack(id);
  }

  @Patch(':id')
  @MayCall('operator')
  @Describe('Says how a job is called, what it belongs to, and until when it is wanted', nothing, 400, 404)
  describe(@Param('id') id: string, @Body() what: DescribeJobDto): Promise<void> {
    return this.jobs.describe(id, { ...what });
  }

  @Post(':id/duplicate')
  @MayCall('operator')
  @Describe('Makes a job of another one as it is, with the files that it came from', writtenOf('Job', 201), 400, 404)
  async duplicate(@Param('id') id: string, @Body() { title }: RenameJobDto): Promise<StreamableFile> {
    return json(await this.jobs.answer(await this.jobs.duplicate(id, title)));
  }

  @Put(':id')
  @MayCall('operator')
  @JsonBody('JobDocument', jobMediaType)
  @Describe(
    'Saves a new version, whose document is the body; refused when another was saved since `base`',
    oneOf('Version'),
    400,
    404,
    409,
    413,
  )
  save(@Param('id') id: string, @Query() { base, edit }: SaveJobDto, @Req() request: Request): Promise<VersionAnswer> {
    return this.jobs.save(id, base, edit, sentBytes(request, 'The document'));
  }

  @Post(':id/copies')
  @MayCall('operator')
  @JsonBody('JobDocument', jobMediaType)
  @Describe('Keeps a document, which is the body, as a job of its own', writtenOf('Job', 201), 400, 404, 413)
  async copy(
    @Param('id') id: string,
    @Query() { title }: RenameJobDto,
    @Req() request: Request,
  ): Promise<StreamableFile> {
    return json(await this.jobs.answer(await this.jobs.copy(id, title, sentBytes(request, 'The document'))));
  }

  @Get(':id/versions')
  @MayCall('operator')
  @Describe('The versions of a job, the last first', listOf('Version'), 404)
  history(@Param('id') id: string): Promise<VersionAnswer[]> {
    return this.jobs.history(id);
  }

  @Get(':id/versions/:number')
  @MayCall('operator')
  @Describe('A job as of a version', writtenOf('Job'), 404)
  async version(@Param('id') id: string, @Param('number', ParseIntPipe) number: number): Promise<StreamableFile> {
    return json(await this.jobs.answer(id, number));
  }

  @Get(':id/picture.svg')
  @MayCall('operator')
  @Describe(
    'What a job draws, in the colours of its operations, as a small SVG',
    fileOf<string>('image/svg+xml'),
    404,
    422,
  )
  @Header('Content-Type', 'image/svg+xml')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  picture(@Param('id') id: string, @Query('version', ParseIntPipe) version: number): Promise<string> {
    return this.pictures.pictureOf(id, version);
  }

  @Get(':id/originals/:original')
  @MayCall('operator')
  @Describe('A file as it was brought in', fileOf<void>('application/octet-stream'), 404)
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async original(
    @Param('id') id: string,
    @Param('original', ParseIntPipe) original: number,
    @Res() response: Response,
  ): Promise<void> {
    response.type('application/octet-stream').send(await this.jobs.original(id, original));
  }

  @Post(':id/drawings')
  @MayCall('operator')
  @FileBody()
  @Describe(
    'Reads a drawing of any format into a job, as a new version, and keeps the file',
    oneOf('DrawingTaken', 201),
    400,
    404,
    409,
    413,
    415,
    422,
  )
  readDrawing(
    @Param('id') id: string,
    @Query() wanted: ReadDrawingDto,
    @Req() request: Request,
  ): Promise<DrawingTaken> {
    return this.jobs.readDrawing(id, wanted, sentBytes(request, wanted.name || 'The file'));
  }

  @Post(':id/originals')
  @MayCall('operator')
  @FileBody()
  @Describe('Keeps a file as it was brought in', oneOf('Original', 201), 400, 404, 413, 415)
  keepOriginal(
    @Param('id') id: string,
    @Query() { name }: BringInDto,
    @Req() request: Request,
  ): Promise<OriginalAnswer> {
    return this.jobs.keepOriginal(
      id,
      (name || 'drawing').slice(0, longestName),
      sentBytes(request, name || 'The file'),
    );
  }
}

function json(bytes: Buffer): StreamableFile {
  return new StreamableFile(bytes, { type: 'application/json', length: bytes.length });
}
