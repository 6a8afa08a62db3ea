import { IsOptional, IsString, Length } from 'class-validator';

/** What is in the file of a job, before it is taken in. */
export interface JobFileLook {
  title: string;
  project: string;
  /** When it went out, ISO 8601, and from which shop. */
  madeAt: string;
  shopName: string;
  items: number;
  /** The machine that it was made for, and whether this shop has it. */
  machine: { id: string; name: string; bedWidth: number; bedHeight: number; isHere: boolean };
  key: { name: string; isHere: boolean };
  materials: { name: string; thicknessMm: number; isHere: boolean; recipes: number }[];
  /** Families of fonts that this shop has not. */
  newFonts: string[];
  originals: string[];
  pictures: number;
}

/** How the file of a job is taken in; the body is the file. */
export class TakeJobFileDto {
  /** Who takes it in: what comes into the recipe book is signed. */
  @IsString()
  @Length(1, 120, { message: 'Say who you are, in 1 to 120 characters.' })
  by!: string;

  /** The machine of this shop that it is for; the one that it was made for where none is named, added if need be. */
  @IsOptional()
  @IsString()
  machineId?: string;
}

/** A job that came in with a file: its id, and in sentences what came with it and what did not. */
export interface JobFileTaken {
  id: string;
  notes: string[];
}
