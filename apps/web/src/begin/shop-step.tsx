import type { Settings } from '@lambent/contracts';
import { lengthUnits } from '@lambent/core/units';
import { useState } from 'react';
import { useSettings } from '../shop/use-settings.ts';
import { dateOptions, lengthOptions, numberOptions } from '../shop/ways-card.tsx';
import { setWho, useWho } from '../stores/who.ts';
import { Choice } from '../ui/choice.tsx';
import { Labelled } from '../ui/labelled.tsx';
import { Words } from '../ui/words.tsx';
import { t } from '../words/words.ts';
import { StepFrame } from './step-frame.tsx';

/** What the shop is called, who sits here, and how the shop counts and writes. */
export function ShopStep({ settings, next }: { settings: Settings; next: () => void }) {
  const { settle } = useSettings();
  const who = useWho();
  const [shopName, setShopName] = useState(settings.shopName);
  const [you, setYou] = useState(who);
  const [currency, setCurrency] = useState(settings.pricing.currency);
  const finish = async () => {
    const name = you.trim();
    const isTaken = await settle(({ people, pricing }) => ({
      shopName,
      people: name === '' || people.includes(name) ? people : [...people, name],
      pricing: { ...pricing, currency: currency.trim() },
    }));
    if (!isTaken) return;
    if (name !== '') setWho(name);
    next();
  };
  return (
    <StepFrame
      title={t('The shop')}
      about={t('What you type here can be changed at any time, under Shop.')}
      finish={{ text: t('On to the machine'), isReady: shopName.trim() !== '', run: () => void finish() }}
      skip={next}
    >
      <div className="grid max-w-[560px] grid-cols-2 gap-x-4 gap-y-3">
        <Words
          label={t('Name of the shop')}
          value={shopName}
          set={setShopName}
          most={80}
          placeholder={t('Such as Quay Workshop')}
        />
        <Words label={t('Your name')} value={you} set={setYou} most={60} placeholder={t('Who works at this screen')} />
        <Words
          label={t('Currency')}
          value={currency}
          set={setCurrency}
          most={8}
          placeholder={t('Such as €; empty: no prices')}
        />
        <Labelled label={t('Lengths in')}>
          <Choice
            label={t('Lengths in')}
            look="slim"
            value={lengthUnits.find((unit) => unit === settings.lengthUnit) ?? 'mm'}
            options={lengthOptions}
            choose={(lengthUnit) => void settle({ lengthUnit })}
          />
        </Labelled>
        <Labelled label={t('Days are written')}>
          <Choice
            label={t('Days are written')}
            look="slim"
            value={settings.dates}
            options={dateOptions}
            choose={(dates) => void settle({ dates })}
          />
        </Labelled>
        <Labelled label={t('Numbers are written')}>
          <Choice
            label={t('Numbers are written')}
            look="slim"
            value={settings.numbers}
            options={numberOptions}
            choose={(numbers) => void settle({ numbers })}
          />
        </Labelled>
      </div>
    </StepFrame>
  );
}
