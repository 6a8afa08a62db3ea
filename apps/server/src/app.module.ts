import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ColourKeysController } from './colour-keys/colour-keys.controller.ts';
import { ColourKeysService } from './colour-keys/colour-keys.service.ts';
import { EventHub } from './common/event-hub.ts';
import { EventsController } from './common/events.controller.ts';
import { HealthController } from './common/health.controller.ts';
import { databaseModule } from './data/database.ts';
import { entities } from './data/entities.ts';
import { ShopService } from './data/shop.service.ts';
import { ThinningService } from './data/thinning.service.ts';
import { WriteQueue } from './data/write-queue.ts';
import { DemoService } from './demo.service.ts';
import { AssetsController, FontsController } from './fonts/fonts.controller.ts';
import { JobsController } from './jobs/jobs.controller.ts';
import { JobsService } from './jobs/jobs.service.ts';
import { PicturesService } from './jobs/pictures.service.ts';
import { MachineLinks } from './machines/machine-links.ts';
import { MachinesController } from './machines/machines.controller.ts';
import { BookService } from './materials/book.service.ts';
import { MaterialsController } from './materials/materials.controller.ts';
import { PicturesController } from './pictures/pictures.controller.ts';
import { RunsController } from './runs/runs.controller.ts';
import { RunsService } from './runs/runs.service.ts';
import { SettingsController } from './settings/settings.controller.ts';
import { WorkService } from './work/work.service.ts';

const data = TypeOrmModule.forFeature(entities);

@Module({
  imports: [data],
  providers: [ShopService, EventHub, WorkService, WriteQueue, ThinningService],
  exports: [data, ShopService, EventHub, WorkService, WriteQueue],
})
class ShopModule {}

@Module({
  imports: [ShopModule],
  controllers: [MachinesController],
  providers: [MachineLinks],
  exports: [MachineLinks],
})
class MachinesModule {}

@Module({
  imports: [ShopModule],
  controllers: [MaterialsController],
  providers: [BookService],
  exports: [BookService],
})
class MaterialsModule {}

@Module({ imports: [ShopModule], controllers: [ColourKeysController], providers: [ColourKeysService] })
class ColourKeysModule {}

@Module({
  imports: [ShopModule],
  controllers: [PicturesController, FontsController, AssetsController, SettingsController],
})
class FilesModule {}

@Module({
  imports: [ShopModule],
  controllers: [JobsController],
  providers: [JobsService, PicturesService, DemoService],
  exports: [JobsService, DemoService],
})
class JobsModule {}

@Module({
  imports: [ShopModule, JobsModule, MachinesModule, MaterialsModule],
  controllers: [RunsController],
  providers: [RunsService],
})
class RunsModule {}

@Module({
  imports: [
    databaseModule(),
    ShopModule,
    MachinesModule,
    MaterialsModule,
    ColourKeysModule,
    FilesModule,
    JobsModule,
    RunsModule,
  ],
  controllers: [EventsController, HealthController],
})
export class AppModule {}
