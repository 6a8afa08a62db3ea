import type { Role } from '@lambent/contracts';
import { t } from '../words/words.ts';

/** A role as it stands on the screen. */
export function nameOfRole(role: Role): string {
  return { manager: t('Manager'), operator: t('Operator'), member: t('Member') }[role];
}
