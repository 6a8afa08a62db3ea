import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { UserRound } from 'lucide-react';
import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import { useSession } from '../stores/session.ts';
import { useWho } from '../stores/who.ts';
import { t } from '../words/words.ts';
import { People } from './people.tsx';

const Account = lazy(() => import('./account.tsx'));

/**
 * Who is at this screen: shown in the bar, and said there. What is changed and burnt from here is signed with it.
 * @param props.isSlim whether it is a mark alone where the screen is narrow
 */
export function WhoChip({ isSlim = false }: { isSlim?: boolean }) {
  const who = useWho();
  const { person, demo } = useSession();
  return (
    <Popover className="flex min-w-0 items-center">
      {demo.length > 0 && !isSlim && (
        <span className="rounded bg-warn-soft px-1.5 text-[12px] text-ink">{t('Demo')}</span>
      )}
      <PopoverButton
        aria-label={who ? t('At this screen: {{who}}', { who }) : undefined}
        title={who ? t('At this screen: {{who}}', { who }) : t('Who is at this screen?')}
        className="flex h-8 max-w-44 items-center gap-1.5 rounded-lg px-2 text-quiet hover:bg-table hover:text-ink"
      >
        <UserRound size={16} className="shrink-0" aria-hidden />
        <span className={`truncate ${isSlim ? 'max-xl:hidden' : ''}`}>{who || t('Who is here?')}</span>
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom end', gap: 6, padding: 8 }}
        focus
        className="z-40 w-64 rounded-xl border border-line bg-paper p-3 shadow-float"
      >
        {({ close }) =>
          person ? (
            <Suspense>
              <Account person={person} />
            </Suspense>
          ) : (
            <>
              <p className="mb-2 font-semibold">{t('Who is at this screen?')}</p>
              <People chosen={close}>
                {t('The list is kept under')}{' '}
                <Link to="/shop" className="font-semibold text-petrol underline">
                  {t('Shop')}
                </Link>
                .
              </People>
            </>
          )
        }
      </PopoverPanel>
    </Popover>
  );
}
