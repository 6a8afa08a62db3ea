import { priceOf } from '@lambent/core/plan';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { formatMoney } from '../../../ui/figures.ts';
import { t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { planOf } from '../../state/plan.ts';
import { Part } from '../drawer.tsx';
import { Fact } from './fact.tsx';

/** What the run costs, in its parts. */
export function PricePart() {
  const plan = useBench(planOf);
  const prepared = useBench((state) => state.prepared);
  const shop = useBench((state) => state.shop);
  const pricing = useBench((state) => state.pricing);
  const price = useMemo(() => plan && priceOf(plan, prepared, shop, pricing), [plan, prepared, shop, pricing]);
  if (!price || (price.total === 0 && price.unpriced.length === 0)) return null;
  return (
    <Part title={prepared.job.runs.length > 1 ? t('Price of {{name}}', { name: prepared.run.name }) : t('Price')}>
      <dl className="figures flex flex-col gap-1 text-[12.5px]">
        {price.parts.map(({ what, amount }) => (
          <Fact key={what} name={what} value={formatMoney(amount, pricing)} />
        ))}
        <Fact name={t('In all')} value={formatMoney(price.total, pricing)} isSum />
      </dl>
      {price.unpriced.length > 0 && (
        <p className="mt-1.5 text-[12px] text-warn">
          {t('Without {{unpriced}}: no price is set.', { unpriced: price.unpriced.join(' and ') })}{' '}
          <Link to="/shop" className="font-semibold underline">
            {t('Set it')}
          </Link>
        </p>
      )}
    </Part>
  );
}
