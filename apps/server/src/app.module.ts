import { Module } from '@nestjs/common';
import { BackupModule } from './backup/backup.module.ts';
import { BookModule } from './book/book.module.ts';
import { ColourKeysModule } from './colour-keys/colour-keys.module.ts';
import { databaseModule } from './data/database.ts';
import { DemoModule } from './demo/demo.module.ts';
import { EventsModule } from './events/events.module.ts';
import { FamiliesModule } from './families/families.module.ts';
import { FilesModule } from './files/files.module.ts';
import { HandModule } from './hand/hand.module.ts';
import { HealthModule } from './health/health.module.ts';
import { JobFilesModule } from './job-files/job-files.module.ts';
import { JobsModule } from './jobs/jobs.module.ts';
import { MachinesModule } from './machines/machines.module.ts';
import { PeopleModule } from './people/people.module.ts';
import { RunsModule } from './runs/runs.module.ts';
import { SettingsModule } from './settings/settings.module.ts';
import { ThinningModule } from './thinning/thinning.module.ts';
import { TimingModule } from './timing/timing.module.ts';

@Module({
  imports: [
    databaseModule(),
    EventsModule,
    HealthModule,
    PeopleModule,
    MachinesModule,
    HandModule,
    ColourKeysModule,
    FamiliesModule,
    BookModule,
    SettingsModule,
    FilesModule,
    JobsModule,
    JobFilesModule,
    RunsModule,
    ThinningModule,
    TimingModule,
    DemoModule,
    BackupModule,
  ],
})
export class AppModule {}
