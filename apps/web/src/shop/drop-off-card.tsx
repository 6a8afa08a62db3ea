import { mostSendingMb, type Settings } from '@lambent/contracts';
import { Link } from 'react-router';
import { dropOffPath } from '../routes/public-paths.ts';
import { NumberField } from '../ui/number-field.tsx';
import { t } from '../words/words.ts';
import { ShopCard } from './shop-card.tsx';
import type { Settle } from './use-settings.ts';

/** What the page takes where anybody leaves drawings. */
export function DropOffCard({ settings, settle }: { settings: Settings; settle: Settle }) {
  return (
    <ShopCard
      title={t('Drop-off')}
      about={
        <>
          {t('Where anybody leaves a drawing to be burnt.')}{' '}
          <Link to={dropOffPath} className="font-semibold text-petrol underline">
            {t('Open the page')}
          </Link>
        </>
      }
    >
      <div className="w-44">
        <NumberField
          layout="stack"
          label={t('A file has at most')}
          unit="MB"
          whole
          value={settings.sendingMb}
          least={1}
          most={mostSendingMb}
          commit={(sendingMb) => void settle({ sendingMb })}
        />
      </div>
    </ShopCard>
  );
}
