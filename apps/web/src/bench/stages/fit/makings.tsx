import { ChevronDown, ChevronRight } from 'lucide-react';
import { type ReactNode, useState } from 'react';

interface Making {
  readonly name: string;
  readonly about: string;
  readonly part: ReactNode;
}

/** Things that can be made, one of which is open: what it would make is shown on the bed. */
export function Makings({ makings }: { makings: readonly Making[] }) {
  const [open, setOpen] = useState<string | null>(() => localStorage.getItem('making') ?? makings[0].name);
  const toggle = (name: string) => {
    const next = open === name ? null : name;
    setOpen(next);
    if (next) localStorage.setItem('making', next);
  };
  return (
    <ul className="flex flex-col">
      {makings.map(({ name, about, part }) => (
        <li key={name} className="border-b border-line last:border-b-0">
          <h2>
            <button
              type="button"
              aria-expanded={open === name}
              onClick={() => toggle(name)}
              className="-ml-1 flex w-full items-center gap-1 py-2 text-left hover:text-petrol"
            >
              {open === name ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
              <span className="font-semibold">{name}</span>
              <span className="min-w-0 truncate text-[12px] text-quiet">{about}</span>
            </button>
          </h2>
          {open === name && <div className="flex flex-col gap-1.5 pb-3">{part}</div>}
        </li>
      ))}
    </ul>
  );
}
