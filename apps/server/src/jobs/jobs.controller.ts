import {
  CopyJobDto,
  CreateJobDto,
  type JobAnswer,
  type JobCard,
  RenameJobDto,
  SaveJobDto,
  type VersionAnswer,
} from '@lambent/contracts';
import {
  Body,
  Controller,
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
} from '@nestjs/common';
import { ApiBody, ApiConsumes, ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { PlainError } from '../common/errors.ts';
import { JobsService } from './jobs.service.ts';
import { PicturesService } from './pictures.service.ts';

@ApiTags('jobs')
@Controller('api/jobs')
export class JobsController {
  constructor(
    private readonly jobs: JobsService,
    private readonly pictures: PicturesService,
  ) {}

  @Get()
  list(): Promise<JobCard[]> {
    return this.jobs.cards();
  }

  @Post()
  create(@Body() { title, project, machineId }: CreateJobDto): Promise<JobAnswer> {
    return this.jobs.create(title, project ?? '', machineId);
  }

  @Get(':id')
  get(@Param('id') id: string): Promise<JobAnswer> {
    return this.jobs.get(id);
  }

  @Patch(':id')
  @HttpCode(204)
  rename(@Param('id') id: string, @Body() { title }: RenameJobDto): Promise<void> {
    return this.jobs.rename(id, title);
  }

  /** Saves a new version; 409 when another window has saved one since `base`. */
  @Put(':id')
  save(@Param('id') id: string, @Body() { base, edit, document }: SaveJobDto): Promise<VersionAnswer> {
    return this.jobs.save(id, base, edit, document);
  }

  @Post(':id/copies')
  copy(@Param('id') id: string, @Body() { title, document }: CopyJobDto): Promise<JobAnswer> {
    return this.jobs.copy(id, title, document);
  }

  @Get(':id/versions')
  history(@Param('id') id: string): Promise<VersionAnswer[]> {
    return this.jobs.history(id);
  }

  @Get(':id/versions/:number')
  version(@Param('id') id: string, @Param('number', ParseIntPipe) number: number): Promise<JobAnswer> {
    return this.jobs.get(id, number);
  }

  /** What the job draws, in its operations' colours, as a small SVG. */
  @Get(':id/picture.svg')
  @Header('Content-Type', 'image/svg+xml')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  picture(@Param('id') id: string, @Query('version', ParseIntPipe) version: number): Promise<string> {
    return this.pictures.of(id, version);
  }

  /** Keeps a file as it was brought in; the body is the file. */
  @Post(':id/originals')
  @ApiConsumes('application/octet-stream')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  keepOriginal(@Param('id') id: string, @Query('name') name: string, @Req() request: Request) {
    if (!Buffer.isBuffer(request.body) || request.body.length === 0) {
      throw new PlainError(400, 'empty-file', `${name || 'The file'} is empty. Save or send it again.`);
    }
    return this.jobs.keepOriginal(id, (name || 'drawing').slice(0, 200), request.body);
  }
}
