import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { WorkService } from '../work/work.service.ts';
import { PictureEntity } from './file.entities.ts';

/** The pictures that drawings show, each under the SHA-256 of the file it came from. */
@Injectable()
export class PicturesService {
  constructor(
    @InjectRepository(PictureEntity) private readonly rows: Repository<PictureEntity>,
    private readonly writes: WriteQueue,
    private readonly work: WorkService,
  ) {}

  /** @throws PlainError 404 */
  async get(id: string): Promise<Pick<PictureEntity, 'mediaType' | 'bytes'>> {
    const picture = await this.rows.findOneBy({ id });
    if (!picture) throw notFound('picture');
    return picture;
  }

  /**
   * Keeps a PNG or JPEG under its SHA-256; one that is there already stays.
   * @throws PlainError 400 where the id is not its SHA-256, 415 where it is no picture
   */
  async keep(id: string, body: unknown): Promise<void> {
    if (!/^[0-9a-f]{64}$/.test(id)) throw new PlainError(400, 'not-an-id', 'A picture’s id is a SHA-256.');
    if (!Buffer.isBuffer(body)) throw new PlainError(400, 'empty-file', 'The picture is empty.');
    const facts = await this.work.describePicture(body).catch((error) => {
      if (error instanceof PlainError && error.code === 'file-refused')
        throw new PlainError(415, 'not-a-picture', error.message);
      throw error;
    });
    if (facts.id !== id) {
      throw new PlainError(
        400,
        'not-its-hash',
        'The picture’s id is not its SHA-256: it was changed on its way. Send it again.',
      );
    }
    await this.writes.do('keepPicture', { ...facts, bytes: body });
  }
}
