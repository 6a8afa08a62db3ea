import { Module } from '@nestjs/common';
import { BackupModule } from './backup/backup.module.ts';
import { BookModule } from './book/book.module.ts';
import { ColourKeysModule } from './colour-keys/colour-keys.module.ts';
import { databaseModule } from './data/database.ts';
import { DayModule } from './day/day.module.ts';
import { DemoModule } from './demo/demo.module.ts';
import { DeskModule } from './desk/desk.module.ts';
import { DropOffModule } from './drop-off/drop-off.module.ts';
import { EventStreamModule } from './events/event-stream.module.ts';
import { FamiliesModule } from './families/families.module.ts';
import { FiguresModule } from './figures/figures.module.ts';
import { FilesModule } from './files/files.module.ts';
import { HandModule } from './hand/hand.module.ts';
import { HealthModule } from './health/health.module.ts';
import { JobFilesModule } from './job-files/job-files.module.ts';
import { JobsModule } from './jobs/jobs.module.ts';
import { MachinesModule } from './machines/machines.module.ts';
import { MailsModule } from './mails/mails.module.ts';
import { MessagesModule } from './messages/messages.module.ts';
import { PeopleModule } from './people/people.module.ts';
import { QuotesModule } from './quotes/quotes.module.ts';
import { RunsModule } from './runs/runs.module.ts';
import { SettingsModule } from './settings/settings.module.ts';
import { SharingModule } from './sharing/sharing.module.ts';
import { ThinningModule } from './thinning/thinning.module.ts';
import { TimingModule } from './timing/timing.module.ts';

@Module({
  imports: [
    databaseModule(),
    EventStreamModule,
    HealthModule,
    PeopleModule,
    MachinesModule,
    HandModule,
    ColourKeysModule,
    FamiliesModule,
    BookModule,
    SettingsModule,
    FiguresModule,
    FilesModule,
    JobsModule,
    DeskModule,
    DayModule,
    QuotesModule,
    SharingModule,
    DropOffModule,
    MessagesModule,
    MailsModule,
    JobFilesModule,
    RunsModule,
    ThinningModule,
    TimingModule,
    DemoModule,
    BackupModule,
  ],
})
export class AppModule {}
