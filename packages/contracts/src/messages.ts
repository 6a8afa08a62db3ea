import { IsOptional, IsString, Length, MaxLength } from 'class-validator';

/** As many characters has a message at most. */
export const longestMessage = 2000;

/** What the workshop and the sender of a job write to each other. */
export class WriteMessageDto {
  @IsString()
  @Length(1, longestMessage, { message: 'A message has 1 to 2000 characters.' })
  text!: string;

  /** Who writes. */
  @IsOptional()
  @IsString()
  @MaxLength(120)
  by?: string;
}

/** What a message tells: what somebody wrote, or what became of a new file, whose name its text is then. */
export type MessageKind = 'text' | 'file-sent' | 'file-taken' | 'file-left-out';

/** A message about a job. */
export interface MessageAnswer {
  id: number;
  kind: MessageKind;
  /** As ISO 8601 in UTC. */
  at: string;
  from: 'workshop' | 'sender';
  /** The name of who wrote it; null where nobody said. */
  by: string | null;
  text: string;
}
