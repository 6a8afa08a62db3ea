import { useQuery } from '@tanstack/react-query';
import { Check } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { api } from '../api.ts';
import { setWho, useWho } from '../stores/who.ts';
import { t } from '../words/words.ts';

/**
 * Who may be at this screen, to choose from, and a line for another name.
 * @param props.chosen is called when somebody was chosen
 */
export function People({ chosen, children }: { chosen?: () => void; children?: ReactNode }) {
  const who = useWho();
  const say = (name: string) => {
    setWho(name);
    chosen?.();
  };
  const people = useQuery({ queryKey: ['settings'], queryFn: api.settings }).data?.people ?? [];
  const [typed, setTyped] = useState('');
  const names = who !== '' && !people.includes(who) ? [who, ...people] : people;
  return (
    <>
      <ul className="-m-1 max-h-64 overflow-y-auto p-1" aria-label={t('People')}>
        {names.map((name) => (
          <li key={name}>
            <button
              type="button"
              aria-current={name === who}
              onClick={() => say(name)}
              className="flex w-full items-center gap-2 rounded-lg px-2 py-1.5 text-left hover:bg-petrol-soft"
            >
              <span className="min-w-0 flex-1 truncate">{name}</span>
              {name === who && <Check size={14} className="text-petrol" aria-hidden />}
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          setTyped('');
          if (typed.trim() !== '') say(typed);
        }}
      >
        <input
          aria-label={t('Another name')}
          placeholder={t('Another name')}
          value={typed}
          maxLength={60}
          onChange={(event) => setTyped(event.target.value)}
          className="h-8 min-w-0 flex-1 rounded-lg border border-line bg-raised px-2 placeholder:text-quiet focus:border-petrol focus:outline-none"
        />
        <button
          type="submit"
          disabled={typed.trim() === ''}
          className="h-8 rounded-lg border border-line bg-raised px-2.5 hover:border-petrol disabled:opacity-50"
        >
          {t('That is me')}
        </button>
      </form>
      <p className="mt-2 text-[12px] text-quiet">
        {t('What is changed, measured and burnt from this screen is signed with it.')} {children}
      </p>
    </>
  );
}
