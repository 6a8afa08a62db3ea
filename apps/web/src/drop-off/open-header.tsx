import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { WhoChip } from '../people/who-chip.tsx';
import { useSession } from '../stores/session.ts';
import { t } from '../words/words.ts';

/** The bar over the pages for those who do not work here: whose workshop it is, and who is signed in. */
export function OpenHeader({ shopName, to, children }: { shopName: string; to: string; children: ReactNode }) {
  const { person } = useSession();
  return (
    <header className="flex h-12 shrink-0 items-center gap-3 border-b border-line bg-paper px-4">
      <img src="/mark.svg" alt="" className="size-7" />
      <span className="min-w-0 truncate text-[15px] font-bold">{shopName || t('Workshop')}</span>
      <Link to={to} className="ml-auto whitespace-nowrap text-petrol hover:underline">
        {children}
      </Link>
      {person && <WhoChip />}
    </header>
  );
}
