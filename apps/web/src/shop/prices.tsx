import type { Settings } from '@lambent/contracts';
import { atWork } from '@lambent/core/machine';
import type { Pricing } from '@lambent/core/recipes';
import { useQuery } from '@tanstack/react-query';
import { api } from '../api.ts';
import { Choice } from '../ui/choice.tsx';
import { formatMoney } from '../ui/figures.ts';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';
import { t } from '../words/words.ts';
import { ShopCard } from './shop-card.tsx';
import type { Settle } from './use-settings.ts';

/** What the shop charges: each figure is settled where it is typed. */
export function Prices({ settings, settle }: { settings: Settings; settle: Settle }) {
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines }).data ?? [];
  const materials = useQuery({ queryKey: ['materials'], queryFn: api.materials }).data ?? [];
  const { pricing } = settings;
  const change = (part: (now: Pricing) => Partial<Pricing>) =>
    void settle((now) => ({ pricing: { ...now.pricing, ...part(now.pricing) } }));
  const amount = (label: string, name: 'rounding' | 'setUp' | 'perRun' | 'minimum') => (
    <Amount
      label={label}
      value={pricing[name]}
      pricing={pricing}
      settle={(value) => change(() => ({ [name]: value ?? 0 }))}
    />
  );
  /** A price that may be missing. */
  const priceOf = (label: string, table: 'machines' | 'materials', id: string) => (
    <Amount
      key={id}
      label={label}
      value={pricing[table][id] ?? null}
      pricing={pricing}
      settle={(value) =>
        change(({ [table]: { [id]: _, ...rest } }) => ({ [table]: value === null ? rest : { ...rest, [id]: value } }))
      }
    />
  );
  return (
    <ShopCard
      title={t('Prices')}
      about={t(
        'What a run costs stands beside its time. What has no price is said there. Jobs that are open follow when they are opened again.',
      )}
    >
      <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-4">
        {amount(t('Rounded up to'), 'rounding')}
        {amount(t('Setting a job up'), 'setUp')}
        {amount(t('Each run'), 'perRun')}
        {amount(t('A job, at least'), 'minimum')}
      </div>
      <fieldset className="mt-4">
        <legend className="mb-2 font-semibold">{t('A minute of')}</legend>
        {machines.length === 0 && <p className="text-quiet">{t('There is no machine yet.')}</p>}
        <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-4">
          {atWork(machines).map(({ id, name }) => priceOf(name, 'machines', id))}
        </div>
      </fieldset>
      <fieldset className="mt-4">
        <legend className="mb-2 font-semibold">{t('A square metre of')}</legend>
        <div className="mb-3 max-w-96">
          <Choice
            label={t('Stock is charged')}
            look="slim"
            value={pricing.stockBy ?? 'area'}
            options={[
              { value: 'area', text: t('Stock by the area that is used') },
              { value: 'sheet', text: t('Stock by the sheet, where its price is in the book') },
            ]}
            choose={(stockBy) => change(() => ({ stockBy }))}
          />
        </div>
        {materials.length === 0 && <p className="text-quiet">{t('There is no material yet.')}</p>}
        <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-3">
          {materials
            .filter(({ forbidden }) => !forbidden)
            .map(({ id, name, thicknessMm }) =>
              priceOf(t('{{name}} {{thicknessMm}} mm', { name, thicknessMm }), 'materials', id),
            )}
        </div>
      </fieldset>
    </ShopCard>
  );
}

/** An amount of money; null where there is none. */
function Amount(props: {
  label: string;
  value: number | null;
  pricing: Pricing;
  settle: (value: number | null) => void;
}) {
  const { label, value, pricing, settle } = props;
  return (
    <TypedField<number | null>
      label={label}
      unit={pricing.currency}
      text={value === null ? '' : formatMoney(value, { currency: '' })}
      placeholder={t('no price')}
      parse={(text) =>
        text.trim() === '' ? { ok: true, value: null } : parsePlain(text, pricing.currency, t('Type an amount.'))
      }
      commit={(typed) => {
        if (typed !== null && !(typed >= 0 && typed <= 1_000_000)) return t('From 0 to a million.');
        settle(typed);
        return undefined;
      }}
    />
  );
}
