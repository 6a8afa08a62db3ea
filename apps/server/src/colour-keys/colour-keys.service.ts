import type { ColourKey } from '@lambent/core/colours';
import { Injectable } from '@nestjs/common';
import { ShopService } from '../data/shop.service.ts';
import { WriteQueue } from '../data/write-queue.ts';

/** The shop's colour keys, in its order; their changes are in colour-keys.writes.ts. */
@Injectable()
export class ColourKeysService {
  constructor(
    private readonly shop: ShopService,
    private readonly writes: WriteQueue,
  ) {}

  list(): Promise<ColourKey[]> {
    return this.shop.keys();
  }

  add(json: Record<string, unknown>): Promise<ColourKey> {
    return this.writes.do('addKey', json);
  }

  change(id: string, json: Record<string, unknown>): Promise<ColourKey> {
    return this.writes.do('changeKey', id, json);
  }

  async order(ids: readonly string[]): Promise<ColourKey[]> {
    await this.writes.do('orderKeys', ids);
    return this.list();
  }

  delete(id: string): Promise<void> {
    return this.writes.do('deleteKey', id);
  }
}
