import { type FitName, fitNames } from '@lambent/core/document';
import { type FigureFrom, figureSources } from '@lambent/core/recipes';
import { IsIn, IsNumber, IsString, Length, Max, Min } from 'class-validator';

/** What a length of the shop's is, who says so, and how they know. The server puts the date to it. */
class FigureDto {
  @IsIn(figureSources, { message: 'A figure is measured, copied or guessed.' })
  from!: FigureFrom;

  @IsString()
  @Length(1, 120, { message: 'Say whose figure it is, in 1 to 120 characters.' })
  by!: string;
}

/** The width of the burn of a material's cutting recipe on a machine. */
export class KerfDto extends FigureDto {
  @IsString()
  machineId!: string;

  @IsNumber({ allowNaN: false, allowInfinity: false }, { message: 'A kerf is a length in mm.' })
  @Min(0, { message: 'A kerf is 0 mm or more.' })
  @Max(2, { message: 'A kerf is at most 2 mm.' })
  mm!: number;
}

/** How much wider than a thing its pocket is, in a material. */
export class FitDto extends FigureDto {
  @IsIn(fitNames, { message: 'A fit is loose, sliding, snug or press.' })
  fit!: FitName;

  @IsNumber({ allowNaN: false, allowInfinity: false }, { message: 'A clearance is a length in mm.' })
  @Min(-2, { message: 'A clearance is -2 mm or more.' })
  @Max(5, { message: 'A clearance is at most 5 mm.' })
  mm!: number;
}
