import { ArrayMaxSize, ArrayUnique, IsArray, IsString } from 'class-validator';

/** The shop's keys in the order they are to stand; the first is the one new jobs get. */
export class KeyOrderDto {
  @IsArray()
  @ArrayMaxSize(500)
  @ArrayUnique()
  @IsString({ each: true })
  ids!: string[];
}
