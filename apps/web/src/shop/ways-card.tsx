import type { DateOrder, NumberStyle, Settings } from '@lambent/contracts';
import { fileNameFor } from '@lambent/core/formats';
import { type LengthUnit, speedUnits } from '@lambent/core/units';
import { Choice } from '../ui/choice.tsx';
import { Labelled } from '../ui/labelled.tsx';
import { LineField } from './line-field.tsx';
import { ShopCard } from './shop-card.tsx';
import type { Settle } from './use-settings.ts';

interface Props {
  readonly settings: Settings;
  readonly settle: Settle;
}

/** The units of lengths, as one chooses them. */
export const lengthOptions: readonly { readonly value: LengthUnit; readonly text: string }[] = [
  { value: 'mm', text: 'mm' },
  { value: 'cm', text: 'cm' },
  { value: 'in', text: 'inches' },
];
/** The ways of writing days, as one chooses them. */
export const dateOptions: readonly { readonly value: DateOrder; readonly text: string }[] = [
  { value: 'day first', text: '27 Nov 2026' },
  { value: 'month first', text: 'Nov 27, 2026' },
  { value: 'year first', text: '2026-11-27' },
];

/** The ways of writing numbers, as one chooses them. */
export const numberOptions: readonly { readonly value: NumberStyle; readonly text: string }[] = [
  { value: 'point', text: '1,234.5' },
  { value: 'comma', text: '1.234,5' },
  { value: 'space', text: '1 234,5' },
];

/** How the shop is called, and how it counts and writes. */
export function WaysCard({ settings, settle }: Props) {
  const { shopName, pricing, lengthUnit, speedUnit, dates: order, numbers } = settings;
  return (
    <ShopCard title="The shop">
      <div className="grid grid-cols-2 items-start gap-3">
        <LineField
          label="Name"
          value={shopName}
          most={80}
          placeholder="Such as Tern Lane Workshop"
          settle={(name) => void settle({ shopName: name })}
        />
        <LineField
          label="Currency"
          value={pricing.currency}
          most={8}
          placeholder="Such as €"
          settle={(currency) => void settle((now) => ({ pricing: { ...now.pricing, currency } }))}
        />
        <Labelled label="Lengths of new jobs in">
          <Choice
            label="Lengths of new jobs in"
            look="slim"
            value={lengthUnit}
            options={lengthOptions}
            choose={(unit) => void settle({ lengthUnit: unit })}
          />
        </Labelled>
        <Labelled label="The shop’s speeds in">
          <Choice
            label="The shop’s speeds in"
            look="slim"
            value={speedUnit}
            options={speedUnits.map((unit) => ({ value: unit, text: unit === '%' ? '% of top speed' : unit }))}
            choose={(unit) => void settle({ speedUnit: unit })}
          />
        </Labelled>
        <Labelled label="Days are written">
          <Choice
            label="Days are written"
            look="slim"
            value={order}
            options={dateOptions}
            choose={(next) => void settle({ dates: next })}
          />
        </Labelled>
        <Labelled label="Numbers are written">
          <Choice
            label="Numbers are written"
            look="slim"
            value={numbers}
            options={numberOptions}
            choose={(next) => void settle({ numbers: next })}
          />
        </Labelled>
        <p className="self-end pb-1 text-[12px] text-quiet">
          Each may be shown in another unit at any time: in a job under Bed, speeds under Recipe.
        </p>
      </div>
    </ShopCard>
  );
}

/** What stands in the braces of a pattern, for an example. */
const exampleFields = {
  job: 'Row markers',
  member: 'Noor Castellan',
  material: 'Birch plywood',
  thickness: '3 mm',
  run: '1',
};

/** How files that go out are named. */
export function FileNamesCard({ settings, settle }: Props) {
  const fields = { ...exampleFields, date: new Date().toISOString().slice(0, 10) };
  return (
    <ShopCard
      title="File names"
      about="How files are named that go out. What stands in braces is filled in: {job} {member} {material} {thickness} {date} {run}"
    >
      <LineField
        label="File names"
        value={settings.fileNames}
        most={200}
        needed
        settle={(fileNames) => void settle({ fileNames })}
      />
      <p className="mt-2 text-quiet">
        Such as <span className="figures text-ink">{fileNameFor(settings.fileNames, fields)}.gcode</span>
      </p>
    </ShopCard>
  );
}
