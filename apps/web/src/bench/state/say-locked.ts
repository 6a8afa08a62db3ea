import type { Item } from '@lambent/core/document';
import { toast } from 'sonner';
import { t } from '../../words/words.ts';
import { nameOf } from '../thing-names.ts';

/** Says that an edit was not made, for it would have changed what is locked. @param unlock what the notice offers */
export function sayLocked(item: Item, unlock: () => void): void {
  toast.message(t('{{item}} is locked, so nothing was changed.', { item: nameOf(item) }), {
    id: 'locked',
    action: { label: t('Unlock it'), onClick: unlock },
  });
}
