import type { NumberFamily } from '@lambent/core/builders';
import type { Report } from '@lambent/core/checks';
import type { ColourKey } from '@lambent/core/colours';
import type { JobJson } from '@lambent/core/document';
import type { Machine } from '@lambent/core/machine';
import type { RunBasis } from '@lambent/core/plan';
import type { Material } from '@lambent/core/recipes';
import type { BookChange, BookTaken } from './book.ts';
import type { DayAnswer, NextRunAnswer } from './day.ts';
import type { DeedAnswer } from './deeds.ts';
import type { DeskPage, JobStepAnswer } from './desk.ts';
import type { BegunSending, DropOffAnswer, JobSendingAnswer, OwnSending, SendingAnswer } from './drop-off.ts';
import type { FiguresAnswer } from './figures.ts';
import type { JobFileLook, JobFileTaken } from './job-files.ts';
import type {
  DeletedJob,
  DrawingTaken,
  ErrorAnswer,
  FontAnswer,
  JobAnswer,
  JobCard,
  OriginalAnswer,
  VersionAnswer,
} from './jobs.ts';
import type { ConnectionTest, MachineState, MachineUses, SerialPortAnswer, TimingAnswer } from './machines.ts';
import type { MailsAnswer } from './mails.ts';
import type { MessageAnswer } from './messages.ts';
import type { InvitationAnswer, PersonAnswer, SessionAnswer } from './people.ts';
import type { QuoteAnswer, QuoteDraft } from './quotes.ts';
import type { BurntPictureAnswer, HealthAnswer, RunAnswer, ServerEvent } from './runs.ts';
import type { BackupFile, Settings } from './settings.ts';
import type { JobSharing, SharingGroup, SheetsShared } from './sharing.ts';

/**
 * Everything that the API answers, by the name that its description gives it. The schemas are made from these types
 * (`scripts/api.mjs`), and the tests hold every answer of the server against them.
 */
export interface Answers {
  BackupFile: BackupFile;
  BegunSending: BegunSending;
  BookChange: BookChange;
  BookTaken: BookTaken;
  BurntPicture: BurntPictureAnswer;
  ColourKey: ColourKey;
  ConnectionTest: ConnectionTest;
  Day: DayAnswer;
  Deed: DeedAnswer;
  DeletedJob: DeletedJob;
  DeskPage: DeskPage;
  DrawingTaken: DrawingTaken;
  DropOff: DropOffAnswer;
  Error: ErrorAnswer;
  Figures: FiguresAnswer;
  Font: FontAnswer;
  Health: HealthAnswer;
  Invitation: InvitationAnswer;
  Job: JobAnswer;
  JobCard: JobCard;
  JobDocument: JobJson;
  JobFileLook: JobFileLook;
  JobFileTaken: JobFileTaken;
  JobSharing: JobSharing;
  JobSending: JobSendingAnswer;
  JobStep: JobStepAnswer;
  Machine: Machine;
  MachineState: MachineState;
  MachineUses: MachineUses;
  Mails: MailsAnswer;
  Material: Material;
  Message: MessageAnswer;
  NextRun: NextRunAnswer;
  NumberFamily: NumberFamily;
  Original: OriginalAnswer;
  OwnSending: OwnSending;
  Person: PersonAnswer;
  Quote: QuoteAnswer;
  QuoteDraft: QuoteDraft;
  Report: Report;
  Run: RunAnswer;
  RunBasis: RunBasis;
  Sending: SendingAnswer;
  SerialPort: SerialPortAnswer;
  ServerEvent: ServerEvent;
  Session: SessionAnswer;
  Settings: Settings;
  SharingGroup: SharingGroup;
  SheetsShared: SheetsShared;
  Timing: TimingAnswer;
  Version: VersionAnswer;
}
