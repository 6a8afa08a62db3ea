import type { DateOrder, NumberStyle, Settings } from '@lambent/contracts';
import { fileNameFor } from '@lambent/core/formats';
import { type LengthUnit, speedUnits } from '@lambent/core/units';
import { Choice } from '../ui/choice.tsx';
import { Labelled } from '../ui/labelled.tsx';
import { browserLanguage, chosenLanguage, type Language, languages, speak } from '../words/language.ts';
import { t } from '../words/words.ts';
import { LineField } from './line-field.tsx';
import { ShopCard } from './shop-card.tsx';
import type { Settle } from './use-settings.ts';

interface Props {
  readonly settings: Settings;
  readonly settle: Settle;
}

/** The units of lengths, as one chooses them. */
export const lengthOptions: readonly { readonly value: LengthUnit; readonly text: string }[] = [
  { value: 'mm', text: t('mm') },
  { value: 'cm', text: t('cm') },
  { value: 'in', text: t('inches') },
];
/** The ways of writing days, as one chooses them. */
export const dateOptions: readonly { readonly value: DateOrder; readonly text: string }[] = [
  { value: 'day first', text: t('27 Nov 2026') },
  { value: 'month first', text: t('Nov 27, 2026') },
  { value: 'year first', text: '2026-11-27' },
];

/** The ways of writing numbers, as one chooses them. */
export const numberOptions: readonly { readonly value: NumberStyle; readonly text: string }[] = [
  { value: 'point', text: '1,234.5' },
  { value: 'comma', text: '1.234,5' },
  { value: 'space', text: '1 234,5' },
];

/** What the interface speaks; each language by its own name, so that it is found by those who read no other. */
const languageOptions: readonly {
  readonly value: Language | 'browser';
  readonly text: string;
  readonly aside?: string;
}[] = [
  { value: 'browser', text: t('As the browser'), aside: languages[browserLanguage] },
  ...Object.entries(languages).map(([value, text]) => ({ value: value as Language, text })),
];

/** How the shop is called, and how it counts and writes. */
export function WaysCard({ settings, settle }: Props) {
  const { shopName, pricing, lengthUnit, speedUnit, dates: order, numbers } = settings;
  return (
    <ShopCard title={t('The shop')}>
      <div className="grid grid-cols-2 items-start gap-3">
        <LineField
          label={t('Name')}
          value={shopName}
          most={80}
          placeholder={t('Such as Tern Lane Workshop')}
          settle={(name) => void settle({ shopName: name })}
        />
        <LineField
          label={t('Currency')}
          value={pricing.currency}
          most={8}
          placeholder={t('Such as €')}
          settle={(currency) => void settle((now) => ({ pricing: { ...now.pricing, currency } }))}
        />
        <Labelled label={t('Lengths of new jobs in')}>
          <Choice
            label={t('Lengths of new jobs in')}
            look="slim"
            value={lengthUnit}
            options={lengthOptions}
            choose={(unit) => void settle({ lengthUnit: unit })}
          />
        </Labelled>
        <Labelled label={t('The shop’s speeds in')}>
          <Choice
            label={t('The shop’s speeds in')}
            look="slim"
            value={speedUnit}
            options={speedUnits.map((unit) => ({ value: unit, text: unit === '%' ? t('% of top speed') : unit }))}
            choose={(unit) => void settle({ speedUnit: unit })}
          />
        </Labelled>
        <Labelled label={t('Days are written')}>
          <Choice
            label={t('Days are written')}
            look="slim"
            value={order}
            options={dateOptions}
            choose={(next) => void settle({ dates: next })}
          />
        </Labelled>
        <Labelled label={t('Numbers are written')}>
          <Choice
            label={t('Numbers are written')}
            look="slim"
            value={numbers}
            options={numberOptions}
            choose={(next) => void settle({ numbers: next })}
          />
        </Labelled>
        <Labelled label={t('Language at this screen')}>
          <Choice<Language | 'browser'>
            label={t('Language at this screen')}
            look="slim"
            value={chosenLanguage ?? 'browser'}
            options={languageOptions}
            choose={(next) => speak(next === 'browser' ? null : next)}
          />
        </Labelled>
        <p className="self-end pb-1 text-[12px] text-quiet">
          {t('Each may be shown in another unit at any time: in a job under Bed, speeds under Recipe.')}
        </p>
      </div>
    </ShopCard>
  );
}

/** What stands in the braces of a pattern, for an example. */
const exampleFields = {
  job: t('Row markers'),
  member: t('Noor Castellan'),
  material: t('Birch plywood'),
  thickness: t('3 mm'),
  run: '1',
};

/** How files that go out are named. */
export function FileNamesCard({ settings, settle }: Props) {
  const fields = { ...exampleFields, date: new Date().toISOString().slice(0, 10) };
  return (
    <ShopCard
      title={t('File names')}
      about={t(
        'How files are named that go out. What stands in braces is filled in: {job} {member} {material} {thickness} {date} {run}',
      )}
    >
      <LineField
        label={t('File names')}
        value={settings.fileNames}
        most={200}
        needed
        settle={(fileNames) => void settle({ fileNames })}
      />
      <p className="mt-2 text-quiet">
        {t('Such as')} <span className="figures text-ink">{fileNameFor(settings.fileNames, fields)}.gcode</span>
      </p>
    </ShopCard>
  );
}
