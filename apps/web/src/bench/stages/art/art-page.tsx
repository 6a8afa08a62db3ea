import { ArrowLeft } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from '../../../ui/button.tsx';
import { t } from '../../../words/words.ts';

/** A page of the Art drawer with a way back to its lists. @param label its name for screen readers */
export function ArtPage(props: { label: string; title: string; leave: () => void; children: ReactNode }) {
  const { label, title, leave, children } = props;
  return (
    <section aria-label={label} className="flex h-full w-[296px] shrink-0 flex-col border-r border-line bg-paper">
      <div className="px-3.5 pb-0.5 pt-2">
        <Button look="quiet" className="-ml-3" onClick={leave}>
          <ArrowLeft size={15} aria-hidden /> {t('Art')}
        </Button>
        <h1 className="truncate text-[16px] font-bold" title={title}>
          {title}
        </h1>
      </div>
      {children}
    </section>
  );
}
