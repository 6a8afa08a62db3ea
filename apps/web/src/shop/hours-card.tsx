import type { Settings } from '@lambent/contracts';
import { useId } from 'react';
import { NumberField } from '../ui/number-field.tsx';
import { Tick } from '../ui/tick.tsx';
import { t } from '../words/words.ts';
import { LineField } from './line-field.tsx';
import { ShopCard } from './shop-card.tsx';
import type { Settle } from './use-settings.ts';

const weekdays = () => [t('Mon'), t('Tue'), t('Wed'), t('Thu'), t('Fri'), t('Sat'), t('Sun')];

/** When the shop is open and how long it takes to set a job up: what is promised goes by it. */
export function HoursCard({ settings, settle }: { settings: Settings; settle: Settle }) {
  const { opensAt, closesAt, openDays, setUpMinutes, timeZone } = settings;
  return (
    <ShopCard
      title={t('Opening hours')}
      about={t('Jobs begin and end while the shop is open. When a drawing could be ready is told by this.')}
    >
      <div className="flex flex-wrap items-end gap-3">
        <ClockField label={t('Opens at')} value={opensAt} settle={(time) => void settle({ opensAt: time })} />
        <ClockField label={t('Closes at')} value={closesAt} settle={(time) => void settle({ closesAt: time })} />
        <div className="w-36">
          <NumberField
            layout="stack"
            label={t('Time to set up')}
            unit="min"
            value={setUpMinutes}
            least={0}
            most={240}
            commit={(minutes) => void settle({ setUpMinutes: minutes })}
          />
        </div>
      </div>
      <fieldset className="my-3">
        <legend className="mb-1 text-quiet">{t('Open on')}</legend>
        <div className="flex flex-wrap gap-x-4 gap-y-1">
          {weekdays().map((name, i) => (
            <Tick
              key={name}
              checked={openDays.includes(i + 1)}
              set={(isOpen) =>
                void settle(({ openDays: days }) => ({
                  openDays: isOpen ? [...days, i + 1].sort() : days.filter((day) => day !== i + 1),
                }))
              }
            >
              {name}
            </Tick>
          ))}
        </div>
      </fieldset>
      <LineField
        label={t('Time zone, where it is another than that of Lambent’s computer')}
        value={timeZone}
        most={60}
        placeholder={t('Such as Europe/Lisbon')}
        settle={(zone) => void settle({ timeZone: zone })}
      />
    </ShopCard>
  );
}

function ClockField({ label, value, settle }: { label: string; value: string; settle: (time: string) => void }) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <input
        key={value}
        id={id}
        type="time"
        defaultValue={value}
        onBlur={({ target }) => target.value !== '' && target.value !== value && settle(target.value)}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        className="figures h-8 rounded-lg border border-line bg-raised px-2.5 focus:border-petrol focus:outline-none"
      />
    </div>
  );
}
