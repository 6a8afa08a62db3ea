import type { Connection } from '@lambent/core/machine';
import { useQuery } from '@tanstack/react-query';
import { RefreshCw } from 'lucide-react';
import type { ReactNode } from 'react';
import { api, sentenceOf } from '../api.ts';
import { IconButton } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { Labelled } from '../ui/labelled.tsx';
import { Words } from '../ui/words.tsx';
import { t } from '../words/words.ts';

type Serial = Extract<Connection, { kind: 'serial' }>;

const bauds = [9600, 19_200, 38_400, 57_600, 115_200, 230_400, 250_000, 460_800, 921_600, 1_000_000];

interface Props {
  readonly connection: Serial;
  readonly change: (connection: Serial) => void;
  readonly children: ReactNode;
}

/** At which serial port a machine is, and how fast it speaks. */
export function SerialFields({ connection, change, children }: Props) {
  const { path, baud } = connection;
  const ports = useQuery({ queryKey: ['ports'], queryFn: api.serialPorts, retry: false });
  const known = bauds.includes(baud) ? bauds : [...bauds, baud].sort((a, b) => a - b);
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2.5">
      <div className="col-span-2 flex items-end gap-1.5">
        <Words
          isCode
          most={255}
          label={t('Port')}
          value={path}
          placeholder={t('Such as /dev/ttyUSB0')}
          set={(named) => change({ ...connection, path: named })}
        />
        <IconButton
          label={t('Look for ports again')}
          className="border border-line"
          disabled={ports.isFetching}
          onClick={() => void ports.refetch()}
        >
          <RefreshCw size={15} aria-hidden />
        </IconButton>
      </div>
      {/* As high as what is found usually is: what lies below does not jump away from under a click. */}
      <div className="col-span-2 flex min-h-9 flex-col justify-center text-[12px]" role="status">
        {ports.isPending && <p className="text-quiet">{t('Looking for ports…')}</p>}
        {ports.isError && <p className="text-quiet">{sentenceOf(ports.error)}</p>}
        {ports.data?.length === 0 && (
          <p className="text-quiet">
            {t('No port is found on Lambent’s computer. Plug the machine in, and look again.')}
          </p>
        )}
        {ports.data && ports.data.length > 0 && (
          <ul aria-label={t('Ports found')} className="flex flex-wrap gap-1.5">
            {ports.data.map((port) => (
              <li key={port.path}>
                <button
                  type="button"
                  aria-pressed={port.path === path}
                  onClick={() => change({ ...connection, path: port.path })}
                  className="rounded-full border border-line bg-raised px-2.5 py-1 hover:border-petrol aria-pressed:border-petrol aria-pressed:bg-petrol-soft aria-pressed:text-petrol"
                >
                  <span className="figures">{port.path}</span>
                  {port.machine !== null && `, ${port.machine}`}
                  {port.machine === null && port.maker !== null && `, ${port.maker}`}
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
      <Labelled label={t('Speed of the line')}>
        <Choice
          look="slim"
          label={t('Speed of the line')}
          value={String(baud)}
          options={known.map((value) => ({ value: String(value), text: t('{{value}} baud', { value }) }))}
          choose={(value) => change({ ...connection, baud: Number(value) })}
        />
      </Labelled>
      {children}
    </div>
  );
}
