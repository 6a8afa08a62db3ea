import { assignPaint, isBurnt, type Layer, type PaintUse, setKey } from '@lambent/core';
import { useMemo } from 'react';
import { Choice } from '../../ui/choice.tsx';
import { OperationMark } from '../../ui/operation-mark.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { Drawer, Part } from './drawer.tsx';

const backToKey = ' key';

/** Every paint of the drawing, and what it means. */
export function ColoursDrawer() {
  const actions = useBenchActions();
  const keys = useBench((state) => state.shop.keys);
  const key = useBench((state) => state.prepared.key);
  const { paints, layers } = useBench((state) => state.prepared.meaning);
  const realColours = useBench((state) => state.look === 'paints');
  // What needs a decision comes first; the rest stays in the drawing's order.
  const sorted = useMemo(
    () => [...paints].sort((a, b) => Number(a.layerId !== null) - Number(b.layerId !== null)),
    [paints],
  );
  return (
    <Drawer
      title="Colours"
      aside={`${paints.length} ${paints.length === 1 ? 'paint' : 'paints'}`}
      foot={
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={realColours}
            onChange={(event) => actions.set({ look: event.target.checked ? 'paints' : 'operations' })}
            className="size-4 accent-petrol"
          />
          Show the real colours <span className="text-quiet">(R)</span>
        </label>
      }
    >
      <Part title="Colour key">
        <Choice
          label="Colour key"
          value={key.id}
          options={keys.map(({ id, name }) => ({ value: id, text: name }))}
          choose={(id) => actions.edit('change colour key', (job) => setKey(job, id))}
        />
      </Part>
      {paints.length === 0 && (
        <p className="text-quiet">Nothing is drawn yet. Bring in a drawing, and its colours are listed here.</p>
      )}
      <ul className="flex flex-col gap-2.5">
        {sorted.map((use) => (
          <li key={`${use.part} ${use.colour} ${use.widthMm}`}>
            <PaintRow use={use} layers={layers} tellsWidth={hasTwin(use, paints)} />
          </li>
        ))}
      </ul>
      {paints.length > 0 && <p className="text-quiet">Guides and notes are shown, never burnt.</p>}
    </Drawer>
  );
}

/** Whether another stroke has the same colour, so that only the width tells them apart. */
function hasTwin(use: PaintUse, paints: readonly PaintUse[]): boolean {
  return (
    use.part === 'stroke' &&
    paints.some((other) => other !== use && other.part === 'stroke' && other.colour === use.colour)
  );
}

function PaintRow({ use, layers, tellsWidth }: { use: PaintUse; layers: readonly Layer[]; tellsWidth: boolean }) {
  const actions = useBenchActions();
  const open = use.layerId === null;
  const stroke = use.part === 'stroke';
  const said = stroke ? `${use.colour}` : `fill ${use.colour}`;
  const count = use.itemIds.length;
  const extent = stroke ? `${(use.lengthMm / 1000).toFixed(2)} m` : `${(use.areaMm2 / 100).toFixed(1)} cm²`;
  const options = [
    ...layers.map(({ id, name, operation }) => ({
      value: id,
      text: isBurnt(operation) ? name : `${name}, not burnt`,
      mark: <OperationMark operation={operation} />,
    })),
    ...(use.byJob ? [{ value: backToKey, text: 'As the key has it' }] : []),
  ];
  const under = useBench((state) => use.itemIds.some((id) => state.under.has(id)));
  return (
    <div
      data-under={under}
      className={`flex items-center gap-2.5 rounded-[10px] border p-2.5 data-[under=true]:ring-1 data-[under=true]:ring-flame ${open ? 'border-stop/60 bg-stop-soft' : 'border-line bg-raised'}`}
      onPointerEnter={() => actions.pointOut(use.itemIds)}
      onPointerLeave={() => actions.pointOut([])}
    >
      <button
        type="button"
        title="Select its items"
        onClick={() => actions.select(use.itemIds)}
        className="flex min-w-0 flex-1 items-center gap-2.5 text-left"
      >
        <span className="flex h-7 w-8 shrink-0 items-center justify-center rounded-md border border-line bg-white">
          {stroke ? (
            <span className="w-5" style={{ borderTop: `2px solid ${use.colour}` }} />
          ) : (
            <span className="h-full w-full rounded-[5px]" style={{ background: use.colour }} />
          )}
        </span>
        <span className="min-w-0">
          <span className="figures block truncate text-[12.5px] font-semibold">{said}</span>
          <span className="block truncate text-[12px] text-quiet">
            {count} {count === 1 ? 'item' : 'items'} · {extent}
            {tellsWidth && ` · ${use.widthMm} mm`}
          </span>
          {use.byJob && <span className="block text-[12px] text-quiet">this job’s own word</span>}
        </span>
      </button>
      <Choice
        label={`What ${said} means`}
        look={open ? 'alert' : 'chip'}
        value={use.layerId}
        options={options}
        choose={(layerId) =>
          actions.edit(`meaning of ${use.colour}`, (job) =>
            assignPaint(job, use, layerId === backToKey ? null : layerId),
          )
        }
      />
    </div>
  );
}
