import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { DeskModule } from '../desk/desk.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { JobsModule } from '../jobs/jobs.module.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { InvoicesController } from './invoices.controller.ts';
import { InvoicesService } from './invoices.service.ts';
import { QuoteEntity } from './quote.entity.ts';
import { QuotesController } from './quotes.controller.ts';
import { QuotesService } from './quotes.service.ts';

@Module({
  imports: [
    TypeOrmModule.forFeature([QuoteEntity]),
    DataModule,
    DeskModule,
    EventsModule,
    JobsModule,
    SettingsModule,
    WorkModule,
  ],
  controllers: [QuotesController, InvoicesController],
  providers: [QuotesService, InvoicesService],
  exports: [QuotesService, InvoicesService],
})
export class QuotesModule {}
