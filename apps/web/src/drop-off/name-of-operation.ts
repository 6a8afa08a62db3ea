import type { Operation } from '@lambent/core/operations';
import { t } from '../words/words.ts';

/** What is done with what an operation takes, for those who do not work here. */
export function nameOfOperation(operation: Operation): string {
  return {
    cut: t('cut through'),
    score: t('scored'),
    engrave: t('engraved'),
    photo: t('burnt in greys'),
    guide: t('only shown'),
    note: t('left out'),
  }[operation];
}
