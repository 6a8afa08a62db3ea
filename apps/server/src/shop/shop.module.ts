import { Module } from '@nestjs/common';
import { BookModule } from '../book/book.module.ts';
import { ColourKeysModule } from '../colour-keys/colour-keys.module.ts';
import { DataModule } from '../data/data.module.ts';
import { MachinesModule } from '../machines/machines.module.ts';
import { ShopService } from './shop.service.ts';

@Module({
  imports: [DataModule, MachinesModule, ColourKeysModule, BookModule],
  providers: [ShopService],
  exports: [ShopService],
})
export class ShopModule {}
