import type { Shop } from '@lambent/core/recipes';
import { Injectable } from '@nestjs/common';
import { BookService } from '../book/book.service.ts';
import { ColourKeysService } from '../colour-keys/colour-keys.service.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { MachinesService } from '../machines/machines.service.ts';

/** What jobs are made with and planned by: the shop's machines, keys and materials. */
@Injectable()
export class ShopService {
  constructor(
    private readonly machines: MachinesService,
    private readonly keys: ColourKeysService,
    private readonly book: BookService,
    private readonly writes: WriteQueue,
  ) {}

  /** Gives a new shop what it cannot do without. */
  async begin(): Promise<void> {
    if ((await this.keys.list()).length === 0) await this.writes.do('beginShop');
  }

  async everything(): Promise<Pick<Shop, 'machines' | 'keys' | 'materials'>> {
    const [machines, keys, materials] = await Promise.all([
      this.machines.list(),
      this.keys.list(),
      this.book.materials(),
    ]);
    return { machines, keys, materials };
  }
}
