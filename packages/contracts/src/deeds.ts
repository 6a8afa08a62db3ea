import { Type } from 'class-transformer';
import { IsInt, IsOptional, Min } from 'class-validator';

/** What the record of who did what tells of. */
export const deedNames = [
  'addJob',
  'duplicateJob',
  'deleteJob',
  'moveJob',
  'describeJob',
  'giveJob',
  'makeQuote',
  'acceptQuote',
  'withdrawQuote',
  'writeToSender',
  'takeNewFile',
  'leaveNewFileOut',
  'takeOffDay',
  'layShared',
  'takeJobBack',
  'takeJobFile',
  'addRun',
  'putBackSheet',
  'keepOffcut',
  'addKey',
  'changeKey',
  'deleteKey',
  'addMachine',
  'changeMachine',
  'keepTimingCard',
  'addFamily',
  'deleteFamily',
  'keepFont',
  'deleteFont',
  'addMaterial',
  'changeMaterial',
  'addRecipe',
  'changeRecipe',
  'keepKerf',
  'keepFit',
  'undoBookChange',
  'takeBookIn',
  'settle',
  'emptyShop',
  'startSession',
  'endSessionsOf',
  'invite',
  'changePerson',
  'changePassword',
] as const;
export type DeedName = (typeof deedNames)[number];

/** What somebody did. */
export interface DeedAnswer {
  id: number;
  /** As ISO 8601 in UTC. */
  at: string;
  /** The name of who did it. */
  by: string;
  what: DeedName;
  /** The id of what it was done to, and how that was called then; null where it was done to nothing that has a name. */
  subjectId: string | null;
  subject: string | null;
}

/** Which of the record is asked for: the last hundred, or the hundred before a deed. */
export class DeedsDto {
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  before?: number;
}
