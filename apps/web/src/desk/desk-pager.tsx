import { deskPageSize } from '@lambent/contracts/job-states';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { IconButton } from '../ui/button.tsx';
import { t } from '../words/words.ts';

interface Props {
  readonly page: number;
  readonly total: number;
  readonly turnTo: (page: number) => void;
}

/** Which jobs of all are on the page, and the way to the others; nothing where all are there. */
export function DeskPager({ page, total, turnTo }: Props) {
  const pages = Math.ceil(total / deskPageSize);
  if (pages <= 1) return null;
  const from = (page - 1) * deskPageSize + 1;
  const to = Math.min(total, page * deskPageSize);
  return (
    <nav aria-label={t('Pages of jobs')} className="mt-3 flex items-center justify-end gap-2">
      <span className="figures text-quiet">{t('{{from}} to {{to}} of {{total}}', { from, to, total })}</span>
      <IconButton label={t('Earlier page')} disabled={page <= 1} onClick={() => turnTo(page - 1)}>
        <ChevronLeft size={16} aria-hidden />
      </IconButton>
      <IconButton label={t('Later page')} disabled={page >= pages} onClick={() => turnTo(page + 1)}>
        <ChevronRight size={16} aria-hidden />
      </IconButton>
    </nav>
  );
}
