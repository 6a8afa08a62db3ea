import type { Pricing } from '@lambent/core/recipes';
import { type SpeedUnit, speedUnits } from '@lambent/core/units';
import { IsIn, IsObject, IsOptional, IsString, Length } from 'class-validator';

/** What the shop has settled for every job. */
export interface Settings {
  /** The pattern that names of files going out follow, such as `{job} {material} {date}`. */
  fileNames: string;
  pricing: Pricing;
  /** What the shop reckons speeds in. */
  speedUnit: SpeedUnit;
}

/** What the shop settles; what is not sent stays as it is. */
export class SettingsDto {
  @IsString()
  @Length(1, 200, { message: 'A pattern for file names has 1 to 200 characters.' })
  fileNames!: string;

  /** What the shop charges: a price list, checked by core. */
  @IsOptional()
  @IsObject()
  pricing?: Pricing;

  @IsOptional()
  @IsIn(speedUnits, { message: 'Speeds are in mm/s, mm/min, in/s, in/min or %.' })
  speedUnit?: SpeedUnit;
}
