import type { Item } from '@lambent/core/document';
import { toast } from 'sonner';
import { said, t } from '../../words/words.ts';
import { nameOf } from '../thing-names.ts';

/** Says that an edit was not made, for it would have changed what is locked. @param unlock what the notice offers */
export function sayLocked(item: Item, unlock: () => void): void {
  toast.message(t('{{item}} is locked, so nothing was changed.', { item: nameOf(item) }), {
    id: 'locked',
    action: { label: t('Unlock it'), onClick: unlock },
  });
}

/** Says that an edit was not made, for the drawing would be too large with it. @param much as core says it: `holds 2 items; …` */
export function sayTooMuch(much: string): void {
  toast.error(
    t('With that, the drawing {{much}}. Nothing was changed: take fewer parts, or simpler ones.', { much: said(much) }),
    { id: 'too-much' },
  );
}
