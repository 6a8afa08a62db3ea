import { BookChangeEntity, MaterialEntity, RecipeEntity } from '../book/book.entities.ts';
import { ColourKeyEntity } from '../colour-keys/colour-key.entity.ts';
import { DayBlockEntity } from '../day/day-block.entity.ts';
import { EstimateEntity, JobStepEntity } from '../desk/desk.entities.ts';
import { SendingEntity } from '../drop-off/sending.entity.ts';
import { NumberFamilyEntity } from '../families/number-family.entity.ts';
import { FontEntity, PictureEntity } from '../files/file.entities.ts';
import { DrawingEntity, DrawingPictureEntity, JobEntity, OriginalEntity, VersionEntity } from '../jobs/job.entities.ts';
import { MachineEntity } from '../machines/machine.entity.ts';
import { MailEntity } from '../mails/mail.entity.ts';
import { MessageEntity } from '../messages/message.entity.ts';
import { InvitationEntity, PersonEntity, SessionEntity } from '../people/people.entities.ts';
import { QuoteEntity } from '../quotes/quote.entity.ts';
import { BurntPictureEntity, RunEntity } from '../runs/run.entities.ts';
import { SettingEntity } from '../settings/setting.entity.ts';
import { SharedPartEntity } from '../sharing/shared-part.entity.ts';
import { TimingCardEntity } from '../timing/timing-card.entity.ts';
import { DeedEntity } from './deed.entity.ts';

/** Every table, in the rooms that own them. */
export const entities = [
  PictureEntity,
  FontEntity,
  SettingEntity,
  MachineEntity,
  ColourKeyEntity,
  NumberFamilyEntity,
  MaterialEntity,
  RecipeEntity,
  BookChangeEntity,
  JobEntity,
  DrawingEntity,
  DrawingPictureEntity,
  VersionEntity,
  OriginalEntity,
  RunEntity,
  BurntPictureEntity,
  TimingCardEntity,
  PersonEntity,
  SessionEntity,
  InvitationEntity,
  DeedEntity,
  JobStepEntity,
  EstimateEntity,
  SendingEntity,
  DayBlockEntity,
  QuoteEntity,
  SharedPartEntity,
  MessageEntity,
  MailEntity,
];
