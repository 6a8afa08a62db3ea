import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { QuotesModule } from '../quotes/quotes.module.ts';
import { RunEntity } from '../runs/run.entities.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { ShopModule } from '../shop/shop.module.ts';
import { FiguresController } from './figures.controller.ts';
import { FiguresService } from './figures.service.ts';

@Module({
  imports: [TypeOrmModule.forFeature([RunEntity]), QuotesModule, SettingsModule, ShopModule],
  controllers: [FiguresController],
  providers: [FiguresService],
})
export class FiguresModule {}
