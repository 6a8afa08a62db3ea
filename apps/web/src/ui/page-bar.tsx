import { useEffect } from 'react';
import { NavLink, useNavigate } from 'react-router';
import { WhoChip } from '../people/who-chip.tsx';
import { useLive } from '../stores/live.ts';
import { t } from '../words/words.ts';
import { isInField } from './in-field.ts';

const places = [
  { to: '/', text: t('Desk') },
  { to: '/book', text: t('Recipe book') },
  { to: '/keys', text: t('Colour keys') },
  { to: '/machines', text: t('Machines') },
  { to: '/record', text: t('Record') },
  { to: '/shop', text: t('Shop') },
  { to: '/guide', text: t('Guide') },
];

/** Opens the guide by its key, as the sheet of keys on the Bench does. */
function useGuideKey(): void {
  const navigate = useNavigate();
  useEffect(() => {
    const open = (event: KeyboardEvent) => {
      if (event.key === '?' && !isInField(event) && !event.defaultPrevented) void navigate('/guide');
    };
    window.addEventListener('keydown', open);
    return () => window.removeEventListener('keydown', open);
  }, [navigate]);
}

/** The bar over every place but the Bench. */
export function PageBar() {
  const connected = useLive((live) => live.connected);
  useGuideKey();
  return (
    <header className="flex h-12 shrink-0 items-center gap-6 border-b border-line bg-paper px-4">
      <NavLink
        to="/"
        className="flex items-center gap-2.5 text-[15px] font-bold"
        aria-label={t('Lambent, to the Desk')}
      >
        <img src="/mark.svg" alt="" className="size-7" />
        {t('Lambent')}
      </NavLink>
      <nav className="flex gap-1" aria-label={t('Places')}>
        {places.map(({ to, text }) => (
          <NavLink
            key={to}
            to={to}
            end={to === '/'}
            className="rounded-lg px-3 py-1.5 text-quiet hover:text-ink aria-[current=page]:bg-petrol-soft aria-[current=page]:font-semibold aria-[current=page]:text-petrol"
          >
            {text}
          </NavLink>
        ))}
      </nav>
      <div className="ml-auto flex min-w-0 items-center gap-3">
        {!connected && <p className="font-semibold text-stop">{t('The server does not answer; trying again.')}</p>}
        <WhoChip />
      </div>
    </header>
  );
}
