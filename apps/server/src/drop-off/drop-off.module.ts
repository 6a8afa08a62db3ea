import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { DayModule } from '../day/day.module.ts';
import { EventsModule } from '../events/events.module.ts';
import { OriginalEntity } from '../jobs/job.entities.ts';
import { JobsModule } from '../jobs/jobs.module.ts';
import { MessagesModule } from '../messages/messages.module.ts';
import { QuotesModule } from '../quotes/quotes.module.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { ShopModule } from '../shop/shop.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { DropOffController } from './drop-off.controller.ts';
import { DropOffService } from './drop-off.service.ts';
import { NewFilesController } from './new-files.controller.ts';
import { NewFilesService } from './new-files.service.ts';
import { OfferService } from './offer.service.ts';
import { SendingEntity } from './sending.entity.ts';

@Module({
  imports: [
    TypeOrmModule.forFeature([SendingEntity, OriginalEntity]),
    DataModule,
    DayModule,
    EventsModule,
    JobsModule,
    MessagesModule,
    QuotesModule,
    SettingsModule,
    ShopModule,
    WorkModule,
  ],
  controllers: [DropOffController, NewFilesController],
  providers: [DropOffService, NewFilesService, OfferService],
})
export class DropOffModule {}
