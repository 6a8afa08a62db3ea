import { endOfMonth, format, startOfMonth } from 'date-fns';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { buttonLook } from '../ui/button.tsx';
import { DayField } from '../ui/day-field.tsx';
import { t } from '../words/words.ts';
import { ShopCard } from './shop-card.tsx';

/** What was burnt and what it costs, as a table for the program that writes invoices. */
export function InvoicesCard() {
  const [from, setFrom] = useState(() => format(startOfMonth(new Date()), 'yyyy-MM-dd'));
  const [until, setUntil] = useState(() => format(endOfMonth(new Date()), 'yyyy-MM-dd'));
  const isWhole = from !== '' && until !== '' && from <= until;
  return (
    <ShopCard title={t('For invoices')} about={t('What was burnt, line by line, with what was agreed or worked out.')}>
      <div className="flex flex-wrap items-end gap-3">
        <DayField label={t('Burnt from')} value={from} set={setFrom} />
        <DayField label={t('Burnt until')} value={until} set={setUntil} />
        {isWhole ? (
          <a href={`/api/invoices.csv?from=${from}&until=${until}`} download className={`${buttonLook('plain')} h-9`}>
            <Download size={14} aria-hidden />
            {t('Save as CSV')}
          </a>
        ) : (
          <p className="text-warn">{t('Choose a first day that is not after the last.')}</p>
        )}
      </div>
    </ShopCard>
  );
}
