import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { IsDay } from './is-day.ts';

/** One line of a quote: what is charged, and how much, in the shop's currency. */
export class QuoteLineDto {
  @IsString()
  @Length(1, 120, { message: 'A line of a quote says what it is for, in 1 to 120 characters.' })
  what!: string;

  @IsNumber({ allowNaN: false, allowInfinity: false, maxDecimalPlaces: 2 }, { message: 'An amount has two decimals.' })
  @Min(-1_000_000, { message: 'From minus a million to a million.' })
  @Max(1_000_000, { message: 'From minus a million to a million.' })
  amount!: number;
}

/** What a job is offered for. */
export class MakeQuoteDto {
  @IsArray()
  @ArrayMinSize(1, { message: 'A quote has a line at least.' })
  @ArrayMaxSize(50, { message: 'A quote has 50 lines at most.' })
  @ValidateNested({ each: true })
  @Type(() => QuoteLineDto)
  lines!: QuoteLineDto[];

  /** The last day on which it can be accepted. */
  @IsDay()
  validUntil!: string;

  @IsString()
  @MaxLength(2000, { message: 'Terms have 2000 characters at most.' })
  terms!: string;

  /** Who offers it. */
  @IsOptional()
  @IsString()
  @MaxLength(120)
  by?: string;
}

/** A quote that is accepted, or withdrawn. */
export class QuoteNumberDto {
  @IsInt()
  @Min(1)
  number!: number;

  /** Who says so. */
  @IsOptional()
  @IsString()
  @MaxLength(120)
  by?: string;
}

/** A quote is open until it is accepted, withdrawn, or past its day. */
export type QuoteState = 'open' | 'accepted' | 'expired' | 'withdrawn';

/** What a quote begins with: what the job costs by the price list, and what is usual here. */
export interface QuoteDraft {
  lines: QuoteLineDto[];
  validUntil: string;
  terms: string;
}

/** What a job was offered for. */
export interface QuoteAnswer {
  /** Counts up through the shop. */
  number: number;
  title: string;
  /** Whom it is for; empty where that is nobody's. */
  whose: string;
  lines: QuoteLineDto[];
  total: number;
  currency: string;
  validUntil: string;
  terms: string;
  /** As ISO 8601 in UTC. */
  madeAt: string;
  by: string | null;
  state: QuoteState;
  /** When it was accepted, and who did; null where it was not. */
  acceptedAt: string | null;
  acceptedBy: string | null;
}
