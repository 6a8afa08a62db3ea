import { CloseButton, Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useQuery } from '@tanstack/react-query';
import { Check, UserRound } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../api.ts';
import { setWho, useWho } from '../stores/who.ts';

/** Who is at this screen: shown in the bar, and said there. What is changed and burnt from here is signed with it. */
export function WhoChip() {
  const who = useWho();
  return (
    <Popover className="min-w-0">
      <PopoverButton
        aria-label={who ? `At this screen: ${who}` : 'Who is at this screen?'}
        title={who ? `At this screen: ${who}` : 'Who is at this screen?'}
        className="flex h-8 max-w-44 items-center gap-1.5 rounded-lg px-2 text-quiet hover:bg-table hover:text-ink"
      >
        <UserRound size={16} className="shrink-0" aria-hidden />
        <span className="truncate">{who || 'Who is here?'}</span>
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom end', gap: 6, padding: 8 }}
        focus
        className="z-40 w-64 rounded-xl border border-line bg-paper p-3 shadow-float"
      >
        <People who={who} />
      </PopoverPanel>
    </Popover>
  );
}

function People({ who }: { who: string }) {
  const people = useQuery({ queryKey: ['settings'], queryFn: api.settings }).data?.people ?? [];
  const [typed, setTyped] = useState('');
  const names = who !== '' && !people.includes(who) ? [who, ...people] : people;
  return (
    <>
      <p className="mb-2 font-semibold">Who is at this screen?</p>
      <ul className="-m-1 max-h-64 overflow-y-auto p-1" aria-label="People">
        {names.map((name) => (
          <li key={name}>
            <CloseButton
              aria-current={name === who}
              onClick={() => setWho(name)}
              className="flex w-full items-center gap-2 rounded-lg px-2 py-1.5 text-left hover:bg-petrol-soft"
            >
              <span className="min-w-0 flex-1 truncate">{name}</span>
              {name === who && <Check size={14} className="text-petrol" aria-hidden />}
            </CloseButton>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          if (typed.trim() !== '') setWho(typed);
          setTyped('');
        }}
      >
        <input
          aria-label="Another name"
          placeholder="Another name"
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
          That is me
        </button>
      </form>
      <p className="mt-2 text-[12px] text-quiet">
        What is changed, measured and burnt from this screen is signed with it. The list is kept under{' '}
        <Link to="/shop" className="font-semibold text-petrol underline">
          Shop
        </Link>
        .
      </p>
    </>
  );
}
