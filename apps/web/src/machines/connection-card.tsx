import { type Connection, languageOf, type Machine, type MachineLanguage, usualBuffer } from '@lambent/core/machine';
import { useLive } from '../stores/live.ts';
import { Choice } from '../ui/choice.tsx';
import { Labelled } from '../ui/labelled.tsx';
import { stateLook } from '../ui/machine-state.ts';
import { NumberField } from '../ui/number-field.tsx';
import { Words } from '../ui/words.tsx';
import { t } from '../words/words.ts';
import { ConnectionTest } from './connection-test.tsx';
import { SerialFields } from './serial-fields.tsx';

type Way = Connection['kind'] | 'none';

const ways: readonly { readonly way: Way; readonly text: string; readonly first: Connection | null }[] = [
  { way: 'none', text: t('Not yet'), first: null },
  { way: 'stand-in', text: t('Stand-in'), first: { kind: 'stand-in', factor: 20 } },
  {
    way: 'network',
    text: t('Network'),
    first: { kind: 'network', host: '', port: 7451, language: 'lambent', buffer: usualBuffer },
  },
  { way: 'serial', text: t('Serial port'), first: { kind: 'serial', path: '', baud: 115_200, buffer: usualBuffer } },
];

const languages: readonly { readonly value: MachineLanguage; readonly text: string }[] = [
  { value: 'lambent', text: t('Lambent’s own') },
  { value: 'plain', text: t('Plain RS-274') },
];

interface Props {
  readonly machine: Machine;
  /** Whether it is kept as it stands here. */
  readonly isSaved: boolean;
  readonly change: (connection: Connection | null) => void;
  /** Takes figures over that the machine tells of itself. */
  readonly takeFigures: (figures: Partial<Machine>) => void;
}

/** How Lambent reaches a machine, and whether it answers. */
export function ConnectionCard({ machine, isSaved, change, takeFigures }: Props) {
  const { connection } = machine;
  const chosen: Way = connection?.kind ?? 'none';
  return (
    <section className="rounded-xl border border-line bg-paper p-4" aria-label={t('Connection')}>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h2 className="mr-auto font-bold">{t('Connection')}</h2>
        <div role="radiogroup" aria-label={t('How it is reached')} className="flex gap-1.5">
          {ways.map(({ way, text, first }) => (
            // biome-ignore lint/a11y/useSemanticElements: a group of pressed chips, as elsewhere
            <button
              key={way}
              type="button"
              role="radio"
              aria-checked={chosen === way}
              onClick={() => chosen !== way && change(first)}
              className="h-8 rounded-full border border-line bg-raised px-3 hover:border-petrol aria-checked:border-petrol aria-checked:bg-petrol-soft aria-checked:font-semibold aria-checked:text-petrol"
            >
              {text}
            </button>
          ))}
        </div>
      </div>
      {connection === null && (
        <p className="text-quiet">
          {t('Jobs can be planned for it, and their programs saved as files. To send them, say how it is reached.')}
        </p>
      )}
      {connection?.kind === 'stand-in' && (
        <>
          <p className="mb-3 text-quiet">
            {t('A simulated machine with these figures. Lambent starts it and stops it. Nothing burns.')}
          </p>
          <div className="w-40">
            <NumberField
              layout="stack"
              label={t('Times as fast')}
              value={connection.factor}
              least={1}
              most={100}
              commit={(factor) => change({ ...connection, factor })}
            />
          </div>
        </>
      )}
      {connection?.kind === 'network' && (
        <div className="grid grid-cols-2 gap-x-3 gap-y-2.5">
          <div className="col-span-2 flex gap-3">
            <Words
              isCode
              most={255}
              label={t('Host')}
              value={connection.host}
              placeholder={t('Such as 192.168.1.20')}
              set={(host) => change({ ...connection, host })}
            />
            <div className="w-28">
              <NumberField
                layout="stack"
                label={t('Port')}
                whole
                value={connection.port}
                least={1}
                most={65_535}
                commit={(port) => change({ ...connection, port })}
              />
            </div>
          </div>
          <Labelled label={t('Language')}>
            <Choice
              look="slim"
              label={t('Language')}
              value={connection.language}
              options={languages}
              choose={(language) => change({ ...connection, language })}
            />
          </Labelled>
          {connection.language === 'plain' && (
            <BufferField value={connection.buffer} commit={(buffer) => change({ ...connection, buffer })} />
          )}
        </div>
      )}
      {connection?.kind === 'serial' && (
        <SerialFields connection={connection} change={change}>
          <BufferField value={connection.buffer} commit={(buffer) => change({ ...connection, buffer })} />
        </SerialFields>
      )}
      {languageOf(machine) === 'plain' && (
        <p className="mt-3 text-[12px] text-quiet">
          {t(
            'The plain language: lines that are answered one by one. It has no lid, shows no picture of the bed, and does not hold by itself when Lambent is silent. At most two seconds of burning wait in it.',
          )}
        </p>
      )}
      {connection && (connection.kind !== 'stand-in' || isSaved) && !machine.isPutAway && (
        <ConnectionTest machine={machine} takeFigures={takeFigures} />
      )}
      {isSaved && connection && !machine.isPutAway && <Heard machineId={machine.id} />}
    </section>
  );
}

/** How many characters the machine takes before it has answered. */
function BufferField({ value, commit }: { value: number; commit: (buffer: number) => void }) {
  return (
    <NumberField
      layout="stack"
      label={t('Buffer')}
      unit="characters"
      whole
      value={value}
      least={64}
      most={65_535}
      commit={commit}
    />
  );
}

/** What is heard of it by now. */
function Heard({ machineId }: { machineId: string }) {
  const state = useLive((live) => live.machines[machineId]);
  const look = stateLook(state?.state ?? 'away');
  return (
    <p className="mt-3 flex items-center gap-2 border-t border-line pt-3" role="status">
      <span className={`size-2.5 rounded-full ${look.dot}`} aria-hidden />
      <span className="font-semibold">{look.text}</span>
      <span className="text-quiet">
        {state && state.state !== 'away'
          ? t('It answers.')
          : state?.reason
            ? `${state.reason[0].toUpperCase()}${state.reason.slice(1)}.`
            : t('It does not answer yet. Lambent keeps asking.')}
      </span>
    </p>
  );
}
