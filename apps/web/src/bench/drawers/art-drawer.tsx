import { type Drawing, type Item, topGroupOf } from '@lambent/core';
import { FileUp, LoaderCircle } from 'lucide-react';
import { useMemo, useRef } from 'react';
import { Button } from '../../ui/button.tsx';
import { Notice } from '../../ui/notice.tsx';
import type { Arrival } from '../bring-in.ts';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf } from '../store.ts';
import { Drawer, Part } from './drawer.tsx';

interface Props {
  arrival: Arrival | null;
  reading: string | null;
  take: (files: readonly File[]) => void;
  cancel: () => void;
  dismiss: () => void;
}

/** More things than this are counted, not listed. */
const mostListed = 250;

/** Bringing drawings in, and what is drawn. */
export function ArtDrawer({ arrival, reading, take, cancel, dismiss }: Props) {
  const drawing = useBench((state) => jobOf(state).drawing);
  const things = useMemo(() => thingsOf(drawing), [drawing]);
  const chooser = useRef<HTMLInputElement>(null);
  const empty = drawing.items.length === 0;
  return (
    <Drawer title="Art" aside={`${drawing.items.length} ${drawing.items.length === 1 ? 'item' : 'items'}`}>
      <input
        ref={chooser}
        type="file"
        accept=".svg,image/svg+xml"
        multiple
        className="hidden"
        data-testid="file-chooser"
        onChange={(event) => {
          take([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <button
        type="button"
        onClick={() => chooser.current?.click()}
        className={`flex flex-col items-center gap-1 rounded-xl border border-dashed border-petrol bg-petrol-soft/40 px-4 text-center hover:bg-petrol-soft ${empty ? 'py-8' : 'py-4'}`}
      >
        <FileUp size={22} className="text-petrol" aria-hidden />
        <span className="font-semibold text-petrol">{empty ? 'Bring in a drawing' : 'Bring in another'}</span>
        <span className="text-quiet">Drop an SVG anywhere on the Bench, or click to choose one.</span>
      </button>
      {reading && (
        <div className="flex items-center gap-2 rounded-[10px] border border-line p-3" role="status">
          <LoaderCircle size={16} className="animate-spin text-petrol" aria-hidden />
          <span className="min-w-0 flex-1 truncate">Reading {reading}…</span>
          <Button look="quiet" onClick={cancel}>
            Stop
          </Button>
        </div>
      )}
      {arrival && <ArrivalNotice arrival={arrival} dismiss={dismiss} />}
      {things.length > 0 && (
        <Part title="On the bed">
          <ul className="flex flex-col">
            {things.slice(0, mostListed).map((thing) => (
              <ThingRow key={thing.key} thing={thing} />
            ))}
          </ul>
          {things.length > mostListed && <p className="text-quiet">and {things.length - mostListed} more</p>}
        </Part>
      )}
    </Drawer>
  );
}

function ArrivalNotice({ arrival, dismiss }: { arrival: Arrival; dismiss: () => void }) {
  const { file, itemCount, size, warnings, trouble } = arrival;
  if (trouble) {
    return (
      <Notice level="blocks" title={`${file} was not taken`}>
        <p>{trouble}</p>
        <Button look="quiet" className="-ml-3" onClick={dismiss}>
          All right
        </Button>
      </Notice>
    );
  }
  return (
    <Notice level={warnings.length > 0 ? 'warns' : 'notes'} title={file}>
      <p className="figures text-[12px]">
        {itemCount} {itemCount === 1 ? 'item' : 'items'} · {size}
      </p>
      {warnings.length > 0 && (
        <ul className="mt-1.5 flex list-disc flex-col gap-1 pl-4">
          {warnings.map(({ code, message }) => (
            <li key={code}>{message}</li>
          ))}
        </ul>
      )}
      <Button look="quiet" className="-ml-3 mt-0.5" onClick={dismiss}>
        All right
      </Button>
    </Notice>
  );
}

/** What the list shows as one: an outermost group, or an item that is in none. */
interface Thing {
  readonly key: string;
  readonly name: string;
  readonly ids: readonly string[];
}

function thingsOf(drawing: Drawing): Thing[] {
  const things = new Map<string, { key: string; name: string; ids: string[] }>();
  for (const item of drawing.items) {
    const group = topGroupOf(drawing, item);
    const key = group?.id ?? item.id;
    const thing = things.get(key);
    if (thing) thing.ids.push(item.id);
    else things.set(key, { key, name: group ? (group.name ?? 'Group') : nameOf(item), ids: [item.id] });
  }
  return [...things.values()];
}

function nameOf({ name, shape }: Item): string {
  return name ?? { path: 'Path', rectangle: 'Rectangle', ellipse: 'Ellipse' }[shape.kind];
}

function ThingRow({ thing }: { thing: Thing }) {
  const actions = useBenchActions();
  const selected = useBench((state) => thing.ids.every((id) => state.selection.has(id)));
  const under = useBench((state) => thing.ids.some((id) => state.under.has(id)));
  return (
    <li>
      <button
        type="button"
        data-under={under}
        aria-pressed={selected}
        onClick={(event) => actions.select(event.shiftKey ? [...actions.get().selection, ...thing.ids] : thing.ids)}
        onPointerEnter={() => actions.pointOut(thing.ids)}
        onPointerLeave={() => actions.pointOut([])}
        className="flex w-full items-center justify-between gap-2 rounded-lg px-2 py-1.5 text-left hover:bg-table aria-pressed:bg-petrol-soft data-[under=true]:ring-1 data-[under=true]:ring-flame"
      >
        <span className="truncate">{thing.name}</span>
        <span className="figures text-[12px] text-quiet">{thing.ids.length > 1 ? thing.ids.length : ''}</span>
      </button>
    </li>
  );
}
