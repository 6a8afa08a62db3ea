import { type Machine, type MachineKind, machineKinds, type Origin } from '@lambent/core/machine';
import { burntOperations, operationOf } from '@lambent/core/operations';
import { Plus, X } from 'lucide-react';
import { type ReactNode, useId } from 'react';
import { Button, IconButton } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { Labelled } from '../ui/labelled.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';
import { said, t } from '../words/words.ts';
import { AxesField } from './axes-field.tsx';
import { Doubts } from './doubts.tsx';
import { FigureField, PlaceField } from './figure-field.tsx';
import type { MachineDraft } from './machine-draft.ts';
import { kindNames, zeroNames } from './machine-words.ts';
import { OwnLines } from './own-lines.tsx';
import { RestFields } from './rest-fields.tsx';
import { ScanOffsets } from './scan-offsets.tsx';

/** All figures of a machine, from its name to its lenses. */
export function MachineForm(props: MachineDraft & { chooseKind: (kind: MachineKind) => void }) {
  const { draft, change, chooseKind } = props;
  const figures = (...names: Parameters<typeof FigureField>[0]['name'][]) =>
    names.map((name) => <FigureField key={name} {...props} name={name} />);
  return (
    <>
      <Part title={null}>
        <NameField {...props} />
        <Labelled label={t('Kind')}>
          <Choice
            look="slim"
            label={t('Kind')}
            value={draft.kind}
            options={machineKinds.map((kind) => ({ value: kind, text: kindNames[kind] }))}
            choose={chooseKind}
          />
        </Labelled>
        {figures('ratedW', 'measuredW')}
      </Part>
      <Part title={t('Bed')}>
        {figures('bedWidth', 'bedHeight')}
        <Labelled label={t('Zero corner')}>
          <Choice
            look="slim"
            label={t('Zero corner')}
            value={draft.origin}
            options={Object.entries(zeroNames).map(([value, text]) => ({ value: value as Origin, text }))}
            choose={(origin) => change({ origin })}
          />
        </Labelled>
        {figures('margin', 'bedGapMm')}
        <RestFields {...props} />
        <PlaceField {...props} name="pointer" label={t('Red pointer off by')} />
      </Part>
      <Part title={t('Motion')}>
        {figures('topSpeed', 'travelSpeed', 'acceleration', 'accelerationY', 'jerk', 'cornerDeviation')}
        {figures('lookAhead', 'moveMs', 'characterMs', 'arcsWithin', 'timeShare')}
        {burntOperations.map((operation) => (
          <SlowerField key={operation} {...props} operation={operation} />
        ))}
      </Part>
      <Doubts about="topSpeeds" doubts={props.doubts}>
        {null}
      </Doubts>
      <Part title={t('Beam')}>
        {figures('powerScale', 'leastPower', 'mostPower', 'minLineSpacing')}
        <AirFields {...props} />
        <FocusFields {...props} />
      </Part>
      <ScanOffsets {...props} />
      <AxesField {...props} />
      <Lenses {...props} />
      <OwnLines {...props} />
    </>
  );
}

function Part({ title, children }: { title: string | null; children: ReactNode }) {
  return (
    <section className="border-t border-line py-3.5 first:border-0 first:pt-0" aria-label={title ?? t('What it is')}>
      {title && <h2 className="mb-2 font-bold">{title}</h2>}
      <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2.5 sm:grid-cols-4 lg:max-xl:grid-cols-2">
        {children}
      </div>
    </section>
  );
}

function NameField({ draft, change }: MachineDraft) {
  const id = useId();
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {t('Name')}
      </label>
      <input
        id={id}
        value={draft.name}
        maxLength={60}
        placeholder={t('Such as Sandpiper')}
        autoComplete="off"
        onChange={(event) => change({ name: event.target.value })}
        className="h-8 min-w-0 rounded-lg border border-line bg-raised px-2.5 font-semibold placeholder:font-normal placeholder:text-quiet focus:border-petrol focus:outline-none"
      />
    </div>
  );
}

/** The top speed of an operation, where it is below that of the machine. */
function SlowerField({ operation, draft, change }: { operation: (typeof burntOperations)[number] } & MachineDraft) {
  const value = draft.topSpeeds?.[operation] ?? null;
  const set = (next: number | null) => {
    const { [operation]: _, ...rest } = draft.topSpeeds ?? {};
    const topSpeeds = next === null ? rest : { ...rest, [operation]: next };
    change({ topSpeeds: Object.keys(topSpeeds).length > 0 ? topSpeeds : undefined });
  };
  return (
    <TypedField<number | null>
      label={t('{{name}} at most', { name: said(operationOf(operation).name) })}
      placeholder={t('as fast')}
      text={value === null ? '' : String(value)}
      unit="mm/s"
      parse={(text) => (text.trim() === '' ? { ok: true, value: null } : parsePlain(text, 'mm/s', t('Type a speed.')))}
      commit={(next) => {
        if (next !== null && !(next > 0 && next <= 20_000)) return t('More than 0, or nothing.');
        set(next);
        return undefined;
      }}
    />
  );
}

type AirKind = 'none' | 'low' | 'low high';

function AirFields({ draft, change }: MachineDraft) {
  const { air } = draft;
  const kind = (air?.levels.join(' ') || (air ? 'low' : 'none')) as AirKind;
  const choose = (next: AirKind) =>
    change({
      air:
        next === 'none'
          ? undefined
          : { levels: next === 'low' ? ['low'] : ['low', 'high'], mostBar: air?.mostBar ?? null },
    });
  return (
    <>
      <Labelled label={t('Air at the beam')}>
        <Choice<AirKind>
          look="slim"
          label={t('Air at the beam')}
          value={kind}
          options={[
            { value: 'none', text: t('Not switched') },
            { value: 'low', text: t('On or off') },
            { value: 'low high', text: t('Low and high') },
          ]}
          choose={choose}
        />
      </Labelled>
      {air && (
        <TypedField<number | null>
          label={t('Pressure up to')}
          placeholder={t('not set')}
          text={air.mostBar === null ? '' : String(air.mostBar)}
          unit="bar"
          parse={(text) =>
            text.trim() === '' ? { ok: true, value: null } : parsePlain(text, 'bar', t('Type a pressure.'))
          }
          commit={(mostBar) => {
            if (mostBar !== null && !(mostBar > 0 && mostBar <= 100)) return t('From 0 to 100 bar, or nothing.');
            change({ air: { ...air, mostBar } });
            return undefined;
          }}
        />
      )}
    </>
  );
}

const usualFocus = { lowest: -10, highest: 20, speed: 5 };

function FocusFields({ draft, change, doubts }: MachineDraft) {
  const { focus } = draft;
  const part = (name: keyof typeof usualFocus, label: string, least: number, unit: string) => (
    <NumberField
      layout="stack"
      label={label}
      unit={unit}
      value={focus?.[name] ?? 0}
      least={least}
      most={1000}
      commit={(value) => focus && change({ focus: { ...focus, [name]: value } })}
    />
  );
  return (
    <>
      <Labelled label={t('Focus')}>
        <Choice<'by hand' | 'driven'>
          look="slim"
          label={t('Focus')}
          value={focus ? 'driven' : 'by hand'}
          options={[
            { value: 'by hand', text: t('Set by hand') },
            { value: 'driven', text: t('Driven') },
          ]}
          choose={(next) => change({ focus: next === 'driven' ? (focus ?? usualFocus) : undefined })}
        />
      </Labelled>
      {focus && (
        <>
          <Doubts about="focus" doubts={doubts}>
            {part('lowest', t('Focus from'), -1000, 'mm')}
          </Doubts>
          {part('highest', t('Focus up to'), -1000, 'mm')}
          {part('speed', t('Focus moves at'), 0.01, 'mm/s')}
        </>
      )}
    </>
  );
}

function Lenses({ draft, change, doubts }: MachineDraft) {
  const lenses = draft.lenses ?? [];
  const set = (next: Machine['lenses']) => change({ lenses: next?.length ? next : undefined });
  return (
    <section className="border-t border-line py-3.5" aria-label={t('Lenses')}>
      <h2 className="font-bold">{t('Lenses')}</h2>
      <p className="mb-2 text-[12px] text-quiet">
        {t('Where it has several that can be put in. The first is in it where a job says nothing.')}
      </p>
      <Doubts about="lenses" doubts={doubts}>
        <ul className="flex flex-wrap items-center gap-2">
          {lenses.map((lens, i) => (
            <li key={lens.id} className="flex items-center">
              <input
                aria-label={t('Lens {{i}}', { i: i + 1 })}
                value={lens.name}
                maxLength={60}
                onChange={(event) =>
                  set(lenses.map((known) => (known.id === lens.id ? { ...known, name: event.target.value } : known)))
                }
                className="h-8 w-40 rounded-l-lg border border-line bg-raised px-2.5 focus:border-petrol focus:outline-none"
              />
              <IconButton
                label={t('Take lens {{i}} away', { i: i + 1 })}
                className="rounded-l-none border border-l-0 border-line"
                onClick={() => set(lenses.filter(({ id }) => id !== lens.id))}
              >
                <X size={14} aria-hidden />
              </IconButton>
            </li>
          ))}
          <li>
            <Button
              disabled={lenses.length >= 20}
              onClick={() => set([...lenses, { id: crypto.randomUUID(), name: '' }])}
            >
              <Plus size={15} aria-hidden />
              {lenses.length === 0 ? t('A lens') : t('Another lens')}
            </Button>
          </li>
        </ul>
      </Doubts>
    </section>
  );
}
