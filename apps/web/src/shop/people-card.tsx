import { UserRound, X } from 'lucide-react';
import { useState } from 'react';
import { setWho, useWho } from '../stores/who.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { ShopCard } from './shop-card.tsx';
import type { Settle } from './use-settings.ts';

interface Props {
  readonly people: readonly string[];
  readonly settle: Settle;
}

/** The people at work here: names to choose from when one says who is at a screen. */
export function PeopleCard({ people, settle }: Props) {
  const who = useWho();
  const [typed, setTyped] = useState('');
  const name = typed.trim();
  const isKnown = people.some((known) => known.toLowerCase() === name.toLowerCase());
  const add = async () => {
    if (name === '' || isKnown) return;
    if (!(await settle((now) => ({ people: [...now.people, name] })))) return;
    setTyped('');
    if (who === '') setWho(name);
  };
  return (
    <ShopCard
      title={t('People')}
      about={t('Who works here. Each says once at a screen who is there; what is done from it is signed.')}
    >
      {people.length > 0 && (
        <ul className="mb-3 flex flex-wrap gap-1.5" aria-label={t('People at work here')}>
          {people.map((person) => (
            <li
              key={person}
              className="flex h-8 items-center gap-1.5 rounded-full border border-line bg-raised pl-3 pr-0.5"
            >
              <UserRound size={14} className="text-quiet" aria-hidden />
              {person}
              {person === who && <span className="text-[12px] text-quiet">{t('at this screen')}</span>}
              <IconButton
                label={t('Take {{person}} off the list', { person })}
                className="size-7 rounded-full"
                onClick={() => void settle((now) => ({ people: now.people.filter((known) => known !== person) }))}
              >
                <X size={13} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      <form
        className="flex flex-wrap items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <input
          aria-label={t('Name of somebody who works here')}
          placeholder={t('A name')}
          value={typed}
          maxLength={60}
          autoComplete="off"
          onChange={(event) => setTyped(event.target.value)}
          className="h-8 w-56 rounded-lg border border-line bg-raised px-2.5 placeholder:text-quiet focus:border-petrol focus:outline-none"
        />
        <Button type="submit" disabled={name === '' || isKnown}>
          {t('Add')}
        </Button>
        {isKnown && <span className="text-quiet">{t('That name is on the list.')}</span>}
      </form>
    </ShopCard>
  );
}
