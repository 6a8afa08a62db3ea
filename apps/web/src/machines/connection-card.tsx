import type { Connection, Machine } from '@lambent/core/machine';
import { type ReactNode, useId } from 'react';
import { useLive } from '../stores/live.ts';
import { stateLook } from '../ui/machine-state.ts';
import { NumberField } from '../ui/number-field.tsx';

type Way = Connection['kind'] | 'none';

const ways: readonly { readonly way: Way; readonly text: string; readonly first: Connection | null }[] = [
  { way: 'none', text: 'Not yet', first: null },
  { way: 'stand-in', text: 'Stand-in', first: { kind: 'stand-in', factor: 20 } },
  { way: 'network', text: 'Network', first: { kind: 'network', host: '', port: 7451 } },
];

interface Props {
  readonly machine: Machine;
  /** Whether it is kept as it stands here. */
  readonly isSaved: boolean;
  readonly change: (connection: Connection | null) => void;
}

/** How Lambent reaches a machine, and whether it answers. */
export function ConnectionCard({ machine, isSaved, change }: Props) {
  const { connection } = machine;
  const chosen: Way = connection?.kind ?? 'none';
  return (
    <section className="rounded-xl border border-line bg-paper p-4" aria-label="Connection">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h2 className="mr-auto font-bold">Connection</h2>
        <div role="radiogroup" aria-label="How it is reached" className="flex gap-1.5">
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
          Jobs can be planned for it, and their programs saved as files. To send them, say how it is reached.
        </p>
      )}
      {connection?.kind === 'stand-in' && (
        <>
          <p className="mb-3 text-quiet">
            A simulated machine with these figures. Lambent starts it and stops it. Nothing burns.
          </p>
          <div className="w-40">
            <NumberField
              layout="stack"
              label="Times as fast"
              value={connection.factor}
              least={1}
              most={100}
              commit={(factor) => change({ ...connection, factor })}
            />
          </div>
        </>
      )}
      {connection?.kind === 'network' && (
        <>
          <p className="mb-3 text-quiet">A machine that listens on the network, in the language of the stand-ins.</p>
          <div className="flex gap-3">
            <Words label="Host">
              {(id) => (
                <input
                  id={id}
                  value={connection.host}
                  maxLength={255}
                  placeholder="Such as 192.168.1.20"
                  autoComplete="off"
                  spellCheck={false}
                  onChange={(event) => change({ ...connection, host: event.target.value })}
                  className="figures h-8 w-full min-w-0 rounded-lg border border-line bg-raised px-2 text-[12.5px] placeholder:text-quiet focus:border-petrol focus:outline-none"
                />
              )}
            </Words>
            <div className="w-28">
              <NumberField
                layout="stack"
                label="Port"
                whole
                value={connection.port}
                least={1}
                most={65_535}
                commit={(port) => change({ ...connection, port })}
              />
            </div>
          </div>
        </>
      )}
      {isSaved && connection && !machine.isPutAway && <Heard machineId={machine.id} />}
    </section>
  );
}

function Words({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div className="flex min-w-0 flex-1 flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      {children(id)}
    </div>
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
          ? 'It answers.'
          : (state?.reason ?? 'It does not answer yet. It is asked again by itself.')}
      </span>
    </p>
  );
}
