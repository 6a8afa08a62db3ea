import type { Item } from '@lambent/core/document';
import { hideItems, lockItems } from '@lambent/core/edits';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ChevronDown, ChevronRight, EyeOff, Lock, LockOpen, Search } from 'lucide-react';
import { type MouseEvent, memo, useCallback, useId, useMemo, useRef, useState } from 'react';
import { IconButton } from '../../../ui/button.tsx';
import { t } from '../../../words/words.ts';
import { sizeAndPlace } from '../../bed-twin.tsx';
import { useBench, useBenchActions, useBenchLater } from '../../context.ts';
import { openRowMenu } from '../../menus/open-bed-menu.ts';
import { NameField } from '../../name-field.tsx';
import { useIsSelected, useIsUnder } from '../../row-state.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';
import { type Listing, listingOf, nameOf } from '../../thing-names.ts';
import { Part } from '../drawer.tsx';

/** One line of the list: a thing, or an item in a group that is open. */
interface Row {
  readonly key: string;
  readonly name: string;
  readonly ids: readonly string[];
  readonly depth: number;
  readonly open: boolean | null;
  readonly locked: boolean;
  /** Another row is called the same. */
  readonly isTwin: boolean;
}

/** As large as a finger where one points. */
const rowPx = globalThis.matchMedia?.('(pointer: coarse)').matches ? 44 : 30;
const mostRowsShown = 8;
/** Lists longer than this can be searched. */
const searchFrom = 8;

/** Everything on the bed, by name; as long as it may be. */
export function OutlineList() {
  return <Outlines listing={listingOf(useBenchLater((state) => jobOf(state).drawing))} />;
}

/** Follows once the bed shows what was done. */
const Outlines = memo(function Outlines({ listing }: { listing: Listing }) {
  const [sought, setSought] = useState('');
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const { things } = listing;
  const rows = useMemo(() => rowsOf(listing, opened, sought), [listing, opened, sought]);
  const holder = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => holder.current,
    estimateSize: () => rowPx,
    overscan: 6,
  });
  const toggle = useCallback((key: string) => {
    setOpened((opened) => {
      const next = new Set(opened);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  }, []);
  if (things.length === 0) return null;
  return (
    <Part title={t('On the bed')}>
      {things.length > searchFrom && (
        <label className="flex h-8 items-center gap-2 rounded-lg border border-line bg-raised px-2.5 focus-within:border-petrol">
          <Search size={14} className="shrink-0 text-quiet" aria-hidden />
          <input
            aria-label={t('Search what is on the bed')}
            placeholder={t('Search {{things}}', { things: things.length })}
            value={sought}
            onChange={(event) => setSought(event.target.value)}
            className="min-w-0 flex-1 bg-transparent outline-none"
          />
        </label>
      )}
      <div ref={holder} className="overflow-y-auto" style={{ maxHeight: rowPx * mostRowsShown }}>
        <ul className="relative" style={{ height: list.getTotalSize() }}>
          {list.getVirtualItems().map(({ index, start }) => (
            <li key={rows[index].key} className="absolute inset-x-0" style={{ height: rowPx, top: start }}>
              <OutlineRow row={rows[index]} toggle={toggle} />
            </li>
          ))}
        </ul>
      </div>
      {rows.length === 0 && <p className="text-quiet">{t('Nothing here is called that.')}</p>}
    </Part>
  );
});

function rowsOf({ drawing, things }: Listing, opened: ReadonlySet<string>, sought: string): Row[] {
  const words = sought.trim().toLowerCase();
  const locked = new Set(drawing.items.flatMap((item) => (item.locked ? [item.id] : [])));
  const byId = new Map<string, Item>(opened.size > 0 ? drawing.items.map((item) => [item.id, item]) : []);
  const called = new Map<string, number>();
  for (const { name } of things) called.set(name, (called.get(name) ?? 0) + 1);
  return things
    .filter(({ name }) => name.toLowerCase().includes(words))
    .flatMap(({ key, name, ids }): Row[] => {
      const grouped = ids.length > 1 || ids[0] !== key;
      const row = {
        key,
        name,
        ids,
        depth: 0,
        open: grouped ? opened.has(key) : null,
        locked: locked.has(ids[0]),
        isTwin: (called.get(name) ?? 0) > 1,
      };
      if (!row.open) return [row];
      const inside = ids.flatMap((id): Row[] => {
        const item = byId.get(id);
        return item
          ? [
              {
                key: id,
                name: nameOf(item),
                ids: [id],
                depth: 1,
                open: null,
                locked: item.locked ?? false,
                isTwin: true,
              },
            ]
          : [];
      });
      return [row, ...inside];
    });
}

/** What is selected after a click on a row: it alone; with Ctrl or Shift it is added, or taken away. */
function chosenAfter(
  { shiftKey, ctrlKey, metaKey }: MouseEvent,
  selection: ReadonlySet<string>,
  ids: readonly string[],
  isSelected: boolean,
): readonly string[] {
  if (!shiftKey && !ctrlKey && !metaKey) return ids;
  const row = new Set(ids);
  return isSelected ? [...selection].filter((id) => !row.has(id)) : [...selection, ...ids];
}

/** The name of a row's thing, to be typed. */
function RowName({ row: { key, name }, done }: { row: Row; done: () => void }) {
  const own = useBench((state) => {
    const { items, groups } = jobOf(state).drawing;
    return [...groups, ...items].find(({ id }) => id === key)?.name ?? null;
  });
  return <NameField id={key} name={own} usual={own === null ? name : ''} done={done} className="h-full flex-1" />;
}

/** How large things are and where they lie, which tells those apart that are called the same. */
function useSizeAndPlace(ids: readonly string[]): string | null {
  const drawing = useBenchLater((state) => jobOf(state).drawing);
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  return useMemo(() => sizeAndPlace(drawing, new Set(ids), machine, unit), [drawing, ids, machine, unit]);
}

/** A button that takes no room until its row is pointed at, or it has the focus. */
const whenPointedAt =
  'h-6 !w-0 overflow-hidden opacity-0 focus:!w-6 focus:opacity-100 group-hover:!w-6 group-hover:opacity-100 pointer-coarse:!w-6';

const OutlineRow = memo(function OutlineRow({ row, toggle }: { row: Row; toggle: (key: string) => void }) {
  const actions = useBenchActions();
  const { ids, open } = row;
  const selected = useIsSelected(ids);
  const under = useIsUnder(ids);
  const { locked } = row;
  const [isNaming, setNaming] = useState(false);
  const place = useSizeAndPlace(ids);
  const placeId = useId();
  return (
    <div
      data-under={under}
      className={`group flex h-full items-center rounded-lg hover:bg-table data-[under=true]:ring-1 data-[under=true]:ring-flame ${selected ? 'bg-petrol-soft' : ''}`}
      onPointerEnter={() => actions.pointOut(ids)}
      onPointerLeave={() => actions.pointOut([])}
    >
      {open !== null && (
        <button
          type="button"
          aria-label={open ? t('Close {{name}}', { name: row.name }) : t('Open {{name}}', { name: row.name })}
          aria-expanded={open}
          onClick={() => toggle(row.key)}
          className="flex size-6 shrink-0 items-center justify-center text-quiet"
        >
          {open ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
        </button>
      )}
      {isNaming && <RowName row={row} done={() => setNaming(false)} />}
      <button
        type="button"
        data-under={under}
        aria-pressed={selected}
        title={t('Double click to name it')}
        hidden={isNaming}
        aria-describedby={row.isTwin ? undefined : placeId}
        onDoubleClick={() => setNaming(true)}
        onKeyDown={(event) => {
          if (event.key === 'F2') setNaming(true);
        }}
        onContextMenu={(event) => openRowMenu(actions, event, ids)}
        onClick={(event) => actions.select(chosenAfter(event, actions.get().selection, ids, selected))}
        className={`flex h-full min-w-0 flex-1 items-center justify-between gap-2 text-left ${open === null ? 'pl-2' : ''} ${row.depth > 0 ? 'pl-8' : ''}`}
      >
        <span className="truncate">{row.name}</span>
        <span className="shrink-0 pr-1 text-[12px] tabular-nums text-quiet">
          {row.isTwin && place}
          {ids.length > 1 && (row.isTwin ? ` · ${ids.length}` : ids.length)}
        </span>
      </button>
      {!row.isTwin && (
        <span id={placeId} className="sr-only">
          {place}
        </span>
      )}
      <IconButton
        label={locked ? t('Unlock {{name}}', { name: row.name }) : t('Lock {{name}}', { name: row.name })}
        className={locked ? 'size-6' : whenPointedAt}
        onClick={() => actions.edit(locked ? 'unlock' : 'lock', (job) => lockItems(job, new Set(ids), !locked))}
      >
        {locked ? <Lock size={13} aria-hidden /> : <LockOpen size={13} aria-hidden />}
      </IconButton>
      <IconButton
        label={t('Hide {{name}}', { name: row.name })}
        className={whenPointedAt}
        onClick={() => actions.edit('hide', (job) => hideItems(job, new Set(ids), true))}
      >
        <EyeOff size={13} aria-hidden />
      </IconButton>
    </div>
  );
});
