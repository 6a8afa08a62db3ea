import type { Item } from '@lambent/core/document';
import { toast } from 'sonner';
import { nameOf } from '../thing-names.ts';

/** Says that an edit was not made, for it would have changed what is locked. @param unlock what the notice offers */
export function sayLocked(item: Item, unlock: () => void): void {
  toast.message(`${nameOf(item)} is locked, so nothing was changed.`, {
    id: 'locked',
    action: { label: 'Unlock it', onClick: unlock },
  });
}
