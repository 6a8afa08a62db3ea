import type { Pricing } from '@lambent/core/recipes';
import { type LengthUnit, lengthUnits, type SpeedUnit, speedUnits } from '@lambent/core/units';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsTimeZone,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { mostSendingMb } from './drop-off.ts';
import { UnlessEmpty } from './unless-empty.ts';

/** In which order days are written: 27 Nov 2026, Nov 27, 2026 or 2026-11-27. */
export const dateOrders = ['day first', 'month first', 'year first'] as const;
export type DateOrder = (typeof dateOrders)[number];

/** How numbers are written: 1,234.5 or 1.234,5 or 1 234,5. */
export const numberStyles = ['point', 'comma', 'space'] as const;
export type NumberStyle = (typeof numberStyles)[number];

/** What the shop has settled for every job. */
export interface Settings {
  /** What the shop is called; empty where nobody has said. */
  shopName: string;
  /** The names of the people at work here. */
  people: string[];
  /** The pattern that names of files going out follow, such as `{job} {material} {date}`. */
  fileNames: string;
  pricing: Pricing;
  /** What the shop reckons speeds in. */
  speedUnit: SpeedUnit;
  /** What lengths of new jobs are in. */
  lengthUnit: LengthUnit;
  dates: DateOrder;
  numbers: NumberStyle;
  /** For so many days a copy of each night is kept; 0 where none is made. */
  backupDays: number;
  /** When the shop opens and closes, such as 09:00; where it closes before it opens, that is on the next day. */
  opensAt: string;
  closesAt: string;
  /** On which days of the week, 1 for Monday to 7 for Sunday. */
  openDays: number[];
  /** So long it takes to set a job up on a machine. */
  setUpMinutes: number;
  /** Where the shop is, such as Europe/Lisbon; empty for where this computer is. */
  timeZone: string;
  /** For so many days a quote can be accepted, and what stands below it. */
  quoteDays: number;
  quoteTerms: string;
  /** The largest file that is taken at the drop-off, in MB. */
  sendingMb: number;
  /** Where mails of the shop come from, and where what senders write goes; empty where no mails are written. */
  mailAddress: string;
  /** Whether the shop was led through its first steps, or they were skipped. */
  isSetUp: boolean;
  /** Whether one looks around in the demo shop, before one begins a shop of one's own. Not settled by hand. */
  isDemo: boolean;
}

/** A backup of the shop that lies in its data folder. */
export interface BackupFile {
  name: string;
  madeAt: string;
  bytes: number;
}

const clockTime = /^([01]\d|2[0-3]):[0-5]\d$/;
const aClockTime = { message: 'A time of day is written as 09:30.' };

/** What the shop settles; what is not sent stays as it is. */
export class SettingsDto implements Partial<Omit<Settings, 'isDemo'>> {
  @IsOptional()
  @IsString()
  @MaxLength(80, { message: 'A shop’s name has up to 80 characters.' })
  shopName?: string;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(200, { message: 'There may be 200 people.' })
  @ArrayUnique({ message: 'Two people have one name. Tell them apart.' })
  @IsString({ each: true })
  @Length(1, 60, { each: true, message: 'A name has 1 to 60 characters.' })
  people?: string[];

  @IsOptional()
  @IsString()
  @Length(1, 200, { message: 'A pattern for file names has 1 to 200 characters.' })
  fileNames?: string;

  /** What the shop charges: a price list, checked by core. */
  @IsOptional()
  @IsObject()
  pricing?: Pricing;

  @IsOptional()
  @IsIn(speedUnits, { message: 'Speeds are in mm/s, mm/min, in/s, in/min or %.' })
  speedUnit?: SpeedUnit;

  @IsOptional()
  @IsIn(lengthUnits, { message: 'Lengths are in mm, cm or in.' })
  lengthUnit?: LengthUnit;

  @IsOptional()
  @IsIn(dateOrders, { message: 'Days are written day first, month first or year first.' })
  dates?: DateOrder;

  @IsOptional()
  @IsIn(numberStyles)
  numbers?: NumberStyle;

  @IsOptional()
  @IsInt({ message: 'Copies are kept for a whole number of days.' })
  @Min(0, { message: 'Copies are kept for 0 to 365 days.' })
  @Max(365, { message: 'Copies are kept for 0 to 365 days.' })
  backupDays?: number;

  @IsOptional()
  @Matches(clockTime, aClockTime)
  opensAt?: string;

  @IsOptional()
  @Matches(clockTime, aClockTime)
  closesAt?: string;

  @IsOptional()
  @IsArray()
  @ArrayUnique({ message: 'A day of the week is named once.' })
  @IsInt({ each: true, message: 'Days of the week are 1 for Monday to 7 for Sunday.' })
  @Min(1, { each: true, message: 'Days of the week are 1 for Monday to 7 for Sunday.' })
  @Max(7, { each: true, message: 'Days of the week are 1 for Monday to 7 for Sunday.' })
  openDays?: number[];

  @IsOptional()
  @IsNumber({ allowNaN: false, allowInfinity: false }, { message: 'Setting up takes 0 to 240 minutes.' })
  @Min(0, { message: 'Setting up takes 0 to 240 minutes.' })
  @Max(240, { message: 'Setting up takes 0 to 240 minutes.' })
  setUpMinutes?: number;

  /** Empty for where this computer is. */
  @UnlessEmpty()
  @IsTimeZone({ message: 'That is no time zone that is known here.' })
  timeZone?: string;

  @IsOptional()
  @IsInt({ message: 'A quote can be accepted for 1 to 365 days.' })
  @Min(1, { message: 'A quote can be accepted for 1 to 365 days.' })
  @Max(365, { message: 'A quote can be accepted for 1 to 365 days.' })
  quoteDays?: number;

  @IsOptional()
  @IsString()
  @MaxLength(2000, { message: 'Terms have 2000 characters at most.' })
  quoteTerms?: string;

  @IsOptional()
  @IsInt({ message: 'A file at the drop-off has 1 to 25 MB at most.' })
  @Min(1, { message: 'A file at the drop-off has 1 to 25 MB at most.' })
  @Max(mostSendingMb, { message: 'A file at the drop-off has 1 to 25 MB at most.' })
  sendingMb?: number;

  /** Empty for no mails. */
  @UnlessEmpty()
  @IsEmail({}, { message: 'That is no mail address. Leave it empty to write no mails.' })
  mailAddress?: string;

  @IsOptional()
  @IsBoolean()
  isSetUp?: boolean;
}
