import { Matches } from 'class-validator';

/** A day, such as 2026-12-24. */
export function IsDay(): PropertyDecorator {
  return Matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, { message: 'A day is written as 2026-12-24.' });
}
