import {
  CreateJobDto,
  type DeletedJob,
  type JobCard,
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
  HttpCode,
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
import { ApiBody, ApiConsumes, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { PlainError } from '../common/plain-error.ts';
import { JobPicturesService } from './job-pictures.service.ts';
import { JobsService } from './jobs.service.ts';

@ApiTags('jobs')
@Controller('api/jobs')
export class JobsController {
  constructor(
    private readonly jobs: JobsService,
    private readonly pictures: JobPicturesService,
  ) {}

  @Get()
  list(): Promise<JobCard[]> {
    return this.jobs.cards();
  }

  @Post()
  async create(@Body() { title, project, machineId }: CreateJobDto): Promise<StreamableFile> {
    return json(await this.jobs.answer(await this.jobs.create(title, project ?? '', machineId)));
  }

  /** Those that were deleted and can be taken back. */
  @Get('deleted')
  deleted(): Promise<DeletedJob[]> {
    return this.jobs.deleted();
  }

  @Get(':id')
  async get(@Param('id') id: string): Promise<StreamableFile> {
    return json(await this.jobs.answer(id));
  }

  /** Takes a job off the Desk; for 30 days it can be taken back. */
  @Delete(':id')
  @HttpCode(204)
  delete(@Param('id') id: string): Promise<void> {
    return this.jobs.delete(id);
  }

  @Post(':id/take-back')
  @HttpCode(204)
  takeBack(@Param('id') id: string): Promise<void> {
    return this.jobs.takeBack(id);
  }

  @Patch(':id')
  @HttpCode(204)
  rename(@Param('id') id: string, @Body() { title }: RenameJobDto): Promise<void> {
    return this.jobs.rename(id, title);
  }

  /** Saves a new version, whose document is the body; 409 when another window has saved one since `base`. */
  @Put(':id')
  @ApiConsumes(jobMediaType)
  @ApiBody({ schema: { type: 'object' } })
  save(@Param('id') id: string, @Query() { base, edit }: SaveJobDto, @Req() request: Request): Promise<VersionAnswer> {
    return this.jobs.save(id, base, edit, bytesOf(request, 'The document'));
  }

  /** Keeps a document, which is the body, as a job of its own. */
  @Post(':id/copies')
  @ApiConsumes(jobMediaType)
  @ApiBody({ schema: { type: 'object' } })
  async copy(
    @Param('id') id: string,
    @Query() { title }: RenameJobDto,
    @Req() request: Request,
  ): Promise<StreamableFile> {
    return json(await this.jobs.answer(await this.jobs.copy(id, title, bytesOf(request, 'The document'))));
  }

  @Get(':id/versions')
  history(@Param('id') id: string): Promise<VersionAnswer[]> {
    return this.jobs.history(id);
  }

  @Get(':id/versions/:number')
  async version(@Param('id') id: string, @Param('number', ParseIntPipe) number: number): Promise<StreamableFile> {
    return json(await this.jobs.answer(id, number));
  }

  /** What the job draws, in its operations' colours, as a small SVG. */
  @Get(':id/picture.svg')
  @Header('Content-Type', 'image/svg+xml')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  picture(@Param('id') id: string, @Query('version', ParseIntPipe) version: number): Promise<string> {
    return this.pictures.of(id, version);
  }

  /** A file as it was brought in. */
  @Get(':id/originals/:original')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async original(
    @Param('id') id: string,
    @Param('original', ParseIntPipe) original: number,
    @Res() response: Response,
  ): Promise<void> {
    response.type('application/octet-stream').send(await this.jobs.original(id, original));
  }

  /** Keeps a file as it was brought in; the body is the file. */
  @Post(':id/originals')
  @ApiConsumes('application/octet-stream')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  keepOriginal(@Param('id') id: string, @Query('name') name: string, @Req() request: Request) {
    return this.jobs.keepOriginal(id, (name || 'drawing').slice(0, 200), bytesOf(request, name || 'The file'));
  }
}

/** @throws PlainError 400 when nothing was sent */
function bytesOf({ body }: Request, what: string): Buffer {
  if (Buffer.isBuffer(body) && body.length > 0) return body;
  throw new PlainError(400, 'empty-file', `${what} is empty. Save or send it again.`);
}

function json(bytes: Buffer): StreamableFile {
  return new StreamableFile(bytes, { type: 'application/json', length: bytes.length });
}
