import { ValidateIf } from 'class-validator';

/** Checks of a field are for a field that says something: it may be left out, or empty. */
export function UnlessEmpty(): PropertyDecorator {
  return ValidateIf((_, value) => value !== undefined && value !== '');
}
