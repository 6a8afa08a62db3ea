import { type DeedAnswer, DeedsDto } from '@lambent/contracts';
import { Controller, Get, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { InjectDataSource } from '@nestjs/typeorm';
import { DataSource } from 'typeorm';
import { Describe, listOf } from '../api/describe.ts';
import { isoOf } from '../common/stored-time.ts';
import { MayCallSignedIn } from './may-call.ts';

/** So much of the record is told at once. */
const atOnce = 100;

@ApiTags('people')
@Controller('api/deeds')
export class DeedsController {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  @Get()
  @MayCallSignedIn('manager')
  @Describe('Who did what, the last first, a hundred at once', listOf('Deed'), 401, 403)
  async list(@Query() { before = Number.MAX_SAFE_INTEGER }: DeedsDto): Promise<DeedAnswer[]> {
    const rows: DeedAnswer[] = await this.database.query(
      `SELECT deeds.id, deeds.at, coalesce(people.name, deeds.actor) AS "by", deeds.what, deeds.subjectId, deeds.subject
       FROM deeds LEFT JOIN people ON people.id = deeds.actor
       WHERE deeds.id < ? ORDER BY deeds.id DESC LIMIT ${atOnce}`,
      [before],
    );
    return rows.map((row) => ({ ...row, at: isoOf(row.at) }));
  }
}
