import { formatMoney, freeOfCharge, type Pricing } from '@lambent/core/recipes';
import { type SpeedUnit, speedUnits } from '@lambent/core/units';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { takeShopSpeedUnit } from '../stores/speed-unit.ts';
import { Choice } from '../ui/choice.tsx';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';

/** What the shop charges: each figure is settled where it is typed. */
export function Prices() {
  const queries = useQueryClient();
  const settings = useQuery({ queryKey: ['settings'], queryFn: api.settings });
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines }).data ?? [];
  const materials = useQuery({ queryKey: ['materials'], queryFn: api.materials }).data ?? [];
  const pricing = settings.data?.pricing ?? freeOfCharge;
  if (!settings.data) return null;
  const change = async (part: Partial<Pricing>, speedUnit?: SpeedUnit) => {
    try {
      const { fileNames } = settings.data;
      const next = await api.settle({ fileNames, pricing: { ...pricing, ...part }, speedUnit });
      if (next.speedUnit) takeShopSpeedUnit(next.speedUnit);
      queries.setQueryData(['settings'], next);
    } catch (error) {
      toast.error(`The price was not changed. ${sentenceOf(error)}`);
    }
  };
  const amount = (label: string, value: number, settle: (value: number) => void) => (
    <Amount key={label} label={label} value={value} pricing={pricing} settle={settle} />
  );
  return (
    <>
      <section aria-label="Speeds" className="mt-8">
        <h2 className="mb-1 text-[16px] font-bold">Speeds</h2>
        <p className="mb-3 text-quiet">
          What the shop reckons them in. Whoever reckons otherwise says so under <em>Recipe</em>.
        </p>
        <div className="w-56">
          <Choice
            label="The shop’s speeds in"
            value={settings.data.speedUnit ?? 'mm/s'}
            options={speedUnits.map((unit) => ({ value: unit, text: unit === '%' ? '% of top speed' : unit }))}
            choose={(unit) => void change({}, unit)}
          />
        </div>
      </section>
      <section aria-label="Prices" className="mt-8">
        <h2 className="mb-1 text-[16px] font-bold">Prices</h2>
        <p className="mb-3 text-quiet">
          What a run costs stands beside its time. Jobs that are open follow when they are opened again.
        </p>
        <div className="grid grid-cols-2 items-start gap-4">
          <div className="grid grid-cols-2 gap-3 rounded-xl border border-line bg-paper p-4">
            <Currency value={pricing.currency} settle={(currency) => void change({ currency })} />
            {amount('Rounded up to', pricing.rounding, (rounding) => void change({ rounding }))}
            {amount('Setting a job up', pricing.setUp, (setUp) => void change({ setUp }))}
            {amount('Each run', pricing.perRun, (perRun) => void change({ perRun }))}
            {amount('A job, at least', pricing.minimum, (minimum) => void change({ minimum }))}
            {machines.map(({ id, name }) =>
              amount(
                `A minute of ${name}`,
                pricing.machines[id] ?? 0,
                (value) => void change({ machines: { ...pricing.machines, [id]: value } }),
              ),
            )}
          </div>
          <div className="grid grid-cols-2 gap-3 rounded-xl border border-line bg-paper p-4">
            <div className="col-span-2">
              <Choice
                label="Stock is charged"
                value={pricing.stockBy ?? 'area'}
                options={[
                  { value: 'area', text: 'Stock by the area that is used' },
                  { value: 'sheet', text: 'Stock by the sheet, where its price is in the book' },
                ]}
                choose={(stockBy) => void change({ stockBy })}
              />
            </div>
            <p className="col-span-2 text-quiet">A square metre of</p>
            {materials.map(({ id, name, thicknessMm }) =>
              amount(
                `${name} ${thicknessMm} mm`,
                pricing.materials[id] ?? 0,
                (value) => void change({ materials: { ...pricing.materials, [id]: value } }),
              ),
            )}
          </div>
        </div>
      </section>
    </>
  );
}

function Amount(props: { label: string; value: number; pricing: Pricing; settle: (value: number) => void }) {
  const { label, value, pricing, settle } = props;
  return (
    <TypedField
      label={label}
      unit={pricing.currency}
      text={formatMoney(value, { currency: '' })}
      parse={(text) => parsePlain(text, pricing.currency, 'Type an amount.')}
      commit={(typed) => {
        if (!(typed >= 0 && typed <= 1_000_000)) return 'From 0 to a million.';
        settle(typed);
        return undefined;
      }}
    />
  );
}

function Currency({ value, settle }: { value: string; settle: (value: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    if (typed !== null && typed.trim() !== value) settle(typed.trim());
    setTyped(null);
  };
  return (
    <label className="flex flex-col gap-1 text-quiet">
      Currency
      <input
        value={typed ?? value}
        maxLength={8}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') setTyped(null);
        }}
        className="h-8 rounded-lg border border-line bg-raised px-2 text-ink focus:border-petrol focus:outline-none"
      />
    </label>
  );
}
