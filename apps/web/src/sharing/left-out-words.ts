import type { LeftOutReason } from '@lambent/contracts';
import { t } from '../words/words.ts';

/** Why a job is not burnt with others, in words that go on from its title. */
export function leftOutWords(why: LeftOutReason): string {
  return {
    sheet: t('fits on no sheet'),
    findings: t('has findings that block it'),
    runs: t('is burnt in runs of its own'),
    stock: t('needs more than one kind of stock'),
    cards: t('holds a test card'),
    many: t('goes with the next ones'),
  }[why];
}
