import { longestName, renameThing } from '@lambent/core/edits';
import { useState } from 'react';
import { t } from '../words/words.ts';
import { useBenchActions } from './context.ts';

interface Props {
  /** Of the item or the group that is named. */
  readonly id: string;
  readonly name: string | null;
  /** What it is called while it has no name. */
  readonly usual: string;
  readonly elementId?: string;
  /** Has the keys from the start, and is there no longer once the name is typed. */
  readonly done?: () => void;
  readonly className?: string;
}

/** The name of an item or a group, typed where it stands: Enter takes it, Escape leaves it as it was. */
export function NameField({ id, name, usual, elementId, done, className = '' }: Props) {
  const actions = useBenchActions();
  const [typed, setTyped] = useState<string | null>(null);
  const settle = () => {
    if (typed !== null && typed.trim() !== (name ?? '')) {
      actions.edit(t('name it {{typed}}', { typed: typed.trim() || usual }), (job) => renameThing(job, id, typed));
    }
    setTyped(null);
    done?.();
  };
  return (
    <input
      id={elementId}
      aria-label={t('Name')}
      title={t('Click to change the name')}
      // biome-ignore lint/a11y/noAutofocus: only where the name was asked for
      autoFocus={done !== undefined}
      value={typed ?? name ?? ''}
      placeholder={usual}
      maxLength={longestName}
      autoComplete="off"
      spellCheck={false}
      onChange={(event) => setTyped(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={settle}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key !== 'Escape' || (typed === null && !done)) return;
        event.stopPropagation();
        setTyped(null);
        done?.();
      }}
      className={`min-w-0 truncate rounded border border-transparent bg-transparent px-1 placeholder:text-ink placeholder:opacity-100 hover:border-line focus:border-petrol focus:bg-raised focus:outline-none ${className}`}
    />
  );
}

/** The field of the size card, which menus lead to. */
export const cardNameId = 'name-of-selection';
