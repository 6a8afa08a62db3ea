import type { NumberFamily } from '@lambent/core/builders';
import type { Report } from '@lambent/core/checks';
import type { ColourKey } from '@lambent/core/colours';
import type { JobJson } from '@lambent/core/document';
import type { Machine } from '@lambent/core/machine';
import type { RunBasis } from '@lambent/core/plan';
import type { Material } from '@lambent/core/recipes';
import type { BookChange, BookTaken } from './book.ts';
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
import type { InvitationAnswer, PersonAnswer, SessionAnswer } from './people.ts';
import type { BurntPictureAnswer, HealthAnswer, RunAnswer, ServerEvent } from './runs.ts';
import type { BackupFile, Settings } from './settings.ts';

/**
 * Everything that the API answers, by the name that its description gives it. The schemas are made from these types
 * (`scripts/api.mjs`), and the tests hold every answer of the server against them.
 */
export interface Answers {
  BackupFile: BackupFile;
  BookChange: BookChange;
  BookTaken: BookTaken;
  BurntPicture: BurntPictureAnswer;
  ColourKey: ColourKey;
  ConnectionTest: ConnectionTest;
  DeletedJob: DeletedJob;
  DrawingTaken: DrawingTaken;
  Error: ErrorAnswer;
  Font: FontAnswer;
  Health: HealthAnswer;
  Invitation: InvitationAnswer;
  Job: JobAnswer;
  JobCard: JobCard;
  JobDocument: JobJson;
  JobFileLook: JobFileLook;
  JobFileTaken: JobFileTaken;
  Machine: Machine;
  MachineState: MachineState;
  MachineUses: MachineUses;
  Material: Material;
  NumberFamily: NumberFamily;
  Original: OriginalAnswer;
  Person: PersonAnswer;
  Report: Report;
  Run: RunAnswer;
  RunBasis: RunBasis;
  SerialPort: SerialPortAnswer;
  ServerEvent: ServerEvent;
  Session: SessionAnswer;
  Settings: Settings;
  Timing: TimingAnswer;
  Version: VersionAnswer;
}
