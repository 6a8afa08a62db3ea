import { Injectable } from '@nestjs/common';
import { PlainError } from '../common/plain-error.ts';
import { PicturesService } from '../files/pictures.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { WorkService } from '../work/work.service.ts';
import { JobsService } from './jobs.service.ts';

const mostKept = 200;

/** Pictures for the Desk's cards, made once a version, one after the other. */
@Injectable()
export class JobPicturesService {
  private readonly kept = new Map<string, Promise<string>>();

  constructor(
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly files: PicturesService,
    private readonly work: WorkService,
  ) {}

  pictureOf(id: string, version: number): Promise<string> {
    const name = `${id} ${version}`;
    let picture = this.kept.get(name);
    if (!picture) {
      picture = this.make(id, version);
      // One that takes too much would take it again; what else went wrong may go right the next time.
      picture.catch((error) => {
        if (!(error instanceof PlainError && error.status === 422)) this.kept.delete(name);
      });
      this.kept.set(name, picture);
      const [oldest] = this.kept.keys();
      if (this.kept.size > mostKept) this.kept.delete(oldest);
    }
    return picture;
  }

  private async make(id: string, version: number): Promise<string> {
    const [job, shop] = await Promise.all([this.jobs.packed(id, version), this.shop.everything()]);
    const picture = this.work.picture({ job, shop }, async (file) => (await this.files.get(file)).bytes);
    return picture.catch((error) => {
      if (!(error instanceof PlainError && error.status === 422)) throw error;
      // Its photos may be what takes too much: they are left out, and their frames are drawn.
      return this.work.picture({ job, shop }, () => Promise.reject(error));
    });
  }
}
