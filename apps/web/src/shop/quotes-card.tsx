import type { Settings } from '@lambent/contracts';
import { NumberField } from '../ui/number-field.tsx';
import { t } from '../words/words.ts';
import { LineField } from './line-field.tsx';
import { ShopCard } from './shop-card.tsx';
import type { Settle } from './use-settings.ts';

/** What quotes of the shop begin with. */
export function QuotesCard({ settings, settle }: { settings: Settings; settle: Settle }) {
  return (
    <ShopCard title={t('Quotes')} about={t('What a new quote begins with. Each can be changed before it is made.')}>
      <div className="flex flex-col gap-3">
        <div className="w-44">
          <NumberField
            layout="stack"
            label={t('A quote holds for')}
            unit="days"
            whole
            value={settings.quoteDays}
            least={1}
            most={365}
            commit={(quoteDays) => void settle({ quoteDays })}
          />
        </div>
        <LineField
          label={t('Terms')}
          value={settings.quoteTerms}
          most={2000}
          placeholder={t('Such as: payable when it is fetched')}
          settle={(quoteTerms) => void settle({ quoteTerms })}
        />
      </div>
    </ShopCard>
  );
}
