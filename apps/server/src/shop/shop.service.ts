import type { Shop } from '@lambent/core/recipes';
import { Injectable } from '@nestjs/common';
import { BookService } from '../book/book.service.ts';
import { ColourKeysService } from '../colour-keys/colour-keys.service.ts';
import { MachinesService } from '../machines/machines.service.ts';

/** What jobs are made with and planned by: the shop's machines, keys and materials. */
@Injectable()
export class ShopService {
  constructor(
    private readonly machines: MachinesService,
    private readonly keys: ColourKeysService,
    private readonly book: BookService,
  ) {}

  async everything(): Promise<Pick<Shop, 'machines' | 'keys' | 'materials'>> {
    const [machines, keys, materials] = await Promise.all([
      this.machines.list(),
      this.keys.list(),
      this.book.materials(),
    ]);
    return { machines, keys, materials };
  }
}
