import type { FindingLevel } from '@lambent/core/checks';
import type { DrawingRule } from '@lambent/core/formats';
import type { Operation } from '@lambent/core/operations';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsEmail,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { IsDay } from './is-day.ts';
import type { JobState } from './job-states.ts';
import { UnlessEmpty } from './unless-empty.ts';

/** A megabyte, in bytes. */
const megabyte = 1024 * 1024;

/** The largest file of a sending that a shop may allow, in MB. */
export const mostSendingMb = 25;

/** As many bytes have so many megabytes. */
export function bytesOfMb(mb: number): number {
  return mb * megabyte;
}

/** What a sender may say of a paint that means nothing here. What is left to the workshop is asked again there. */
export const paintAnswers = ['cut', 'score', 'engrave', 'note', 'workshop'] as const;
export type PaintAnswer = (typeof paintAnswers)[number];

/** What a sender says of one paint of the drawing. */
export class PaintAnswerDto {
  @IsIn(['stroke', 'fill'])
  part!: 'stroke' | 'fill';

  @Matches(/^#[0-9A-F]{6}$/i)
  colour!: string;

  /** In mm; null for a fill. */
  @ValidateIf(({ widthMm }) => widthMm !== null)
  @IsNumber({ allowNaN: false, allowInfinity: false })
  widthMm!: number | null;

  @IsIn(paintAnswers)
  answer!: PaintAnswer;
}

/** How a sending is to be made. */
export class SendingWishDto {
  /** One of the shop's materials; empty where the sender brings their own, or has not said. */
  @IsString()
  @MaxLength(60)
  materialId!: string;

  /** What the sender brings, in their words. */
  @IsString()
  @MaxLength(200)
  ownStock!: string;

  @IsInt()
  @Min(1, { message: 'How many is 1 or more.' })
  @Max(1000, { message: 'How many is 1000 at most.' })
  copies!: number;

  /** How wide it is to be, in mm; 0 for as the file has it. */
  @IsNumber({ allowNaN: false, allowInfinity: false })
  @Min(0, { message: 'A width is 0 mm or more.' })
  @Max(5000, { message: 'A width is 5000 mm at most.' })
  widthMm!: number;

  /** Which page of the file, counted from 1. */
  @IsInt()
  @Min(1)
  @Max(1000)
  page!: number;

  @IsArray()
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => PaintAnswerDto)
  answers!: PaintAnswerDto[];
}

/** Who sends, and what for. */
export class SendInDto {
  @IsString()
  @Length(1, 120, { message: 'Say your name, in 1 to 120 characters.' })
  name!: string;

  @IsString()
  @Length(1, 120, { message: 'Say what to call it, in 1 to 120 characters.' })
  title!: string;

  @IsOptional()
  @IsString()
  @MaxLength(2000, { message: 'Notes have 2000 characters at most.' })
  notes?: string;

  /** Where mails about it go; empty for none. */
  @UnlessEmpty()
  @IsEmail({}, { message: 'That is no mail address. Leave it empty to follow it by its link alone.' })
  mail?: string;

  /** The day until which it is wanted; empty for no day. */
  @UnlessEmpty()
  @IsDay()
  wantedBy?: string;
}

/** What is offered to be burnt; lengths in mm. */
export interface OfferedMaterial {
  id: string;
  name: string;
  thicknessMm: number;
  tone: string;
  sheetWidth: number;
  sheetHeight: number;
  /** How wide what is left between two cuts is at least, and how high engraved letters are; 0 where nobody knows. */
  leastWallMm: number;
  leastLetterMm: number;
}

/** What anybody may know of the shop before they send something. */
export interface DropOffAnswer {
  shopName: string;
  currency: string;
  /** What is in stock and may be burnt. */
  materials: OfferedMaterial[];
  /** What drawings mean here, by their lines and fills, the first that fits; widths in mm. */
  rules: DrawingRule[];
  /** Strokes wider than this, in mm, are areas; null where width does not say so. */
  hairlineMm: number | null;
  /** So far from the edge of a sheet nothing is drawn, in mm. */
  marginMm: number;
  /** The largest sheet that the machines take, in mm; null where there is no machine yet, and nothing is taken in. */
  bed: { width: number; height: number } | null;
  /** The largest file that is taken, in MB. */
  largestMb: number;
  /** Whether the shop writes mails, so that a mail address is asked for. */
  writesMails: boolean;
}

/** One paint of a drawing, and what it means here. */
export interface SentPaint {
  part: 'stroke' | 'fill';
  colour: string;
  widthMm: number | null;
  items: number;
  /** What is done with it; null where that is not known. */
  operation: Operation | null;
  /** What the sender said of it; null where the shop's key knows it. */
  answer: PaintAnswer | null;
}

/** What was seen in a drawing that was sent, made as it is wished. */
export interface SendingLook {
  /** The machine that it is laid out for. */
  machineId: string;
  format: string;
  pages: number;
  /** Of all that is drawn, in mm. */
  widthMm: number;
  heightMm: number;
  /** Whether the file says how large it is. */
  saysSize: boolean;
  paints: SentPaint[];
  /** What the checks found of what a sender can mend or know, the gravest first. */
  findings: { code: string; title: string; level: FindingLevel; message: string }[];
  /** How many things were looked at and are fine. */
  fine: number;
  /** Of all copies, in s; null where it cannot be known yet. */
  seconds: number | null;
  price: { total: number; parts: { what: string; amount: number }[] } | null;
}

/** How many lines of a drawing stayed, are done otherwise, went and came. */
export interface DrawingDifference {
  same: number;
  otherwise: number;
  gone: number;
  added: number;
}

/** A sending, as who has its link sees it. */
export interface SendingAnswer {
  file: string;
  wish: SendingWishDto;
  look: SendingLook;
  /** Changes with every look: the picture is asked for by it. */
  looks: number;
  /** What was said when it was sent in; null until then. */
  sent: { at: string; name: string; title: string; notes: string; wantedBy: string | null; mail: string } | null;
  /** When it could be burnt, as ISO 8601, by what waits for the machines now; null where that is not known, and once it is burnt. */
  readyAt: string | null;
  /** Where it stands in the shop, and since when; null until it is sent in, and where the shop deleted it. */
  job: { state: JobState; since: string } | null;
  /** What a new file changes of the one that it is to replace; null where it is to replace none. */
  difference: DrawingDifference | null;
  /** A new file that waits for the workshop to take it; null where none does. */
  newFile: { file: string; at: string } | null;
}

/** A sending that has begun, with the token of its link, which is told once. */
export interface BegunSending extends SendingAnswer {
  token: string;
}

/** What a job's sender asked for, as the shop sees it. */
export interface JobSendingAnswer {
  at: string;
  name: string;
  /** Where mails about it go; empty for none. */
  mail: string;
  /** Whether its sender reads what is written to them: their link was not withdrawn. */
  isOpen: boolean;
  notes: string;
  copies: number;
  ownStock: string;
  file: string;
  /** What it was seen to be, and how it is to be made. */
  look: SendingLook;
  wish: SendingWishDto;
  /** A new file that its sender wants made instead; null where there is none. */
  newFile: NewFileAnswer | null;
}

/** A new file for a job, as the shop sees it. */
export interface NewFileAnswer {
  id: string;
  file: string;
  at: string;
  difference: DrawingDifference;
  look: SendingLook;
  /** How it is to be made; another material or number may have been chosen with it. */
  wish: SendingWishDto;
}

/** Which new file is taken: what another came after is not. */
export class TakeNewFileDto {
  @IsString()
  @MaxLength(60)
  id!: string;

  /** Who takes it. */
  @IsOptional()
  @IsString()
  @MaxLength(120)
  by?: string;
}

/** What somebody who is signed in has sent in. */
export interface OwnSending {
  id: string;
  title: string;
  at: string;
  state: JobState | null;
}
