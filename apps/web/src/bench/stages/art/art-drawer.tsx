import type { Arrival, Item } from '@lambent/core/document';
import { hideItems } from '@lambent/core/edits';
import { FileUp, LoaderCircle, RotateCw } from 'lucide-react';
import { useMemo, useRef } from 'react';
import { counted } from '../../../stores/numbers.ts';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { t } from '../../../words/words.ts';
import { acceptedFiles } from '../../arriving/accepted.ts';
import { offerFiles, readAgain } from '../../arriving/arriving.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { loadBuilders } from '../../state/built-following.ts';
import { jobOf } from '../../state/document.ts';
import { nameOf } from '../../thing-names.ts';
import { Drawer, Part } from '../drawer.tsx';
import { laterDrawer } from '../later-drawer.tsx';
import { ArrangePart } from './arrange-part.tsx';
import { openBuilt, useBuiltUse } from './built/built-use.ts';
import { selectedThing } from './built/selected-thing.ts';
import { LayoutPart } from './layout-part.tsx';
import { OutlineList } from './outline-list.tsx';
import { changeOutlines, usePictureUse } from './picture/picture-use.ts';
import { selectedPicture, sourceOfTraced } from './picture/selected-picture.ts';

/** Bringing drawings in, and what is drawn. */
export function ArtDrawer() {
  const arriving = useBench((state) => state.incoming.arriving);
  const picture = useBench(selectedPicture);
  const source = useBench(sourceOfTraced);
  const selection = useBench((state) => state.selection);
  const changing = usePictureUse((state) => state.changing);
  const building = useBuiltUse((state) => state.open);
  if (arriving) return <ArrivalCard arriving={arriving} />;
  if (building) return <Built key={building.thing?.id} thing={building.thing} />;
  if (source && changing !== null && selection.has(changing)) return <Traced picture={source} />;
  return picture ? <Picture item={picture} /> : <ArtLists />;
}

const ArrivalCard = laterDrawer(async () => (await import('../../arriving/arrival-card.tsx')).ArrivalCard);
const Traced = laterDrawer(async () => (await import('./picture/picture-drawer.tsx')).TracedDrawer);
const Built = laterDrawer(async () => {
  await loadBuilders();
  return (await import('./built/built-drawer.tsx')).BuiltDrawer;
});
const Picture = laterDrawer(async () => (await import('./picture/picture-drawer.tsx')).PictureDrawer);

function ArtLists() {
  const actions = useBenchActions();
  const empty = useBench((state) => jobOf(state).drawing.items.length === 0);
  const { reading, parts, refused } = useBench((state) => state.incoming);
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <Drawer title={t('Art')} aside={<ShownCount />}>
      <input
        ref={chooser}
        type="file"
        accept={acceptedFiles}
        multiple
        className="hidden"
        data-testid="file-chooser"
        onChange={(event) => {
          void offerFiles(actions, [...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <button
        type="button"
        onClick={() => chooser.current?.click()}
        title={t('SVG, DXF, PDF, STL and pictures')}
        className={`flex items-center justify-center rounded-xl border border-dashed border-petrol bg-petrol-soft/40 px-4 text-center hover:bg-petrol-soft ${empty ? 'flex-col gap-1 py-8' : 'gap-2 py-2'}`}
      >
        <FileUp size={empty ? 22 : 17} className="text-petrol" aria-hidden />
        <span className="font-semibold text-petrol">{empty ? t('Bring in a drawing') : t('Bring in another')}</span>
        {empty && (
          <>
            <span className="text-quiet">{t('Drop a file on the Bench, paste one, or click to choose.')}</span>
            <span className="text-[12px] text-quiet">{t('SVG, DXF, PDF, STL and pictures')}</span>
            <span className="text-quiet">{t('Or draw: the tools are at the foot of the bed.')}</span>
          </>
        )}
      </button>
      {reading && (
        <div className="flex items-center gap-2 rounded-[10px] border border-line p-3" role="status">
          <LoaderCircle size={16} className="animate-spin text-petrol" aria-hidden />
          <span className="min-w-0 flex-1">
            <span className="block truncate">{t('Reading {{file}}…', { file: reading.file })}</span>
            {parts > 0 && (
              <span className="figures block text-[12px] text-quiet">
                {t('{{parts}} parts', { parts: counted(parts) })}
              </span>
            )}
          </span>
          <Button look="quiet" onClick={actions.stopReading}>
            {t('Stop')}
          </Button>
        </div>
      )}
      {refused && (
        <Notice level="blocks" title={t('{{file}} was not taken', { file: refused.file })}>
          <p>{refused.why}</p>
          <Button look="quiet" className="-ml-3" onClick={actions.dismissRefusal}>
            {t('All right')}
          </Button>
        </Notice>
      )}
      <Button className="shrink-0" onClick={() => openBuilt(null)}>
        {t('Parts from numbers…')}
      </Button>
      <TracedPart />
      <BuiltPart />
      <OutlineList />
      <ArrangePart />
      <LayoutPart />
      <HiddenPart />
      <BroughtIn />
    </Drawer>
  );
}

/** Outlines of a picture that are selected: how they were found is changed, as long as they follow it. */
function TracedPart() {
  const source = useBench(sourceOfTraced);
  const [id] = useBench((state) => state.selection);
  if (!source) return null;
  return (
    <Part title={t('Outlines of a picture')}>
      <Button onClick={() => changeOutlines(id)}>{t('Find them another way')}</Button>
    </Part>
  );
}

/** Parts of something built that are selected: its numbers are changed, or they become plain outlines. */
function BuiltPart() {
  const actions = useBenchActions();
  const thing = useBench(selectedThing);
  const selection = useBench((state) => state.selection);
  if (!thing) return null;
  const settle = () =>
    void loadBuilders().then(({ settleParts }) =>
      actions.edit(t('settle parts from numbers'), (job) => settleParts(job, selection)),
    );
  const give = () =>
    void loadBuilders().then(({ giveBack }) => actions.edit(t('give outlines back'), (job) => giveBack(job, thing.id)));
  return (
    <Part title={t('Parts from numbers')}>
      <div className="grid grid-cols-2 gap-2">
        <Button onClick={() => openBuilt(thing)}>{t('Change numbers')}</Button>
        <Button onClick={settle} title={t('They become plain outlines, and follow no numbers any more')}>
          {t('Settle')}
        </Button>
        {thing.outlines && (
          <Button className="col-span-2" onClick={give} title={t('They are what they were before they were joined')}>
            {t('Give the outlines back')}
          </Button>
        )}
      </div>
    </Part>
  );
}

function ShownCount() {
  const drawing = useBench((state) => jobOf(state).drawing);
  const shown = drawing.items.reduce((sum, { hidden }) => (hidden ? sum : sum + 1), 0);
  return shown === 1 ? t('1 item') : t('{{shown}} items', { shown });
}

/** Parts that files did not show or that were cut to a clip: kept, not burnt. */
function HiddenPart() {
  const actions = useBenchActions();
  const drawing = useBench((state) => jobOf(state).drawing);
  const hidden = useMemo(() => drawing.items.filter((item) => item.hidden), [drawing]);
  if (hidden.length === 0) return null;
  const bringIn = (items: readonly Item[]) => {
    const ids = new Set(items.map(({ id }) => id));
    actions.edit(
      t('bring in {{ids}} hidden {{ids2}}', { ids: ids.size, ids2: ids.size === 1 ? t('part') : t('parts') }),
      (job) => hideItems(job, ids, false),
    );
    actions.select(ids);
  };
  return (
    <Part title={t('Hidden, not burnt: {{hidden}}', { hidden: hidden.length })}>
      <ul className="flex flex-col">
        {hidden.slice(0, 40).map((item) => (
          <li
            key={item.id}
            className="flex items-center justify-between gap-2 rounded-lg py-0.5 pl-2 hover:bg-table"
            onPointerEnter={() => actions.pointOut([item.id])}
            onPointerLeave={() => actions.pointOut([])}
          >
            <span className="truncate">{nameOf(item)}</span>
            <Button look="quiet" onClick={() => bringIn([item])}>
              {t('Bring in')}
            </Button>
          </li>
        ))}
      </ul>
      {hidden.length > 1 && (
        <Button className="self-start" onClick={() => bringIn(hidden)}>
          {t('Bring all {{hidden}} in', { hidden: hidden.length })}
        </Button>
      )}
    </Part>
  );
}

/** The files this job was made of; each can be read again with other choices. */
function BroughtIn() {
  const actions = useBenchActions();
  const arrivals = useBench((state) => jobOf(state).arrivals);
  if (arrivals.length === 0) return null;
  const again = (arrival: Arrival) => void readAgain(actions, arrival);
  return (
    <Part title={t('Brought in')}>
      <ul className="flex flex-col">
        {arrivals.map((arrival) => (
          <li key={arrival.id} className="flex items-center justify-between gap-2 pl-2">
            <span className="truncate" title={arrival.file}>
              {arrival.file}
            </span>
            {arrival.originalId !== null && (
              <IconButton
                label={t('Read {{file}} again, with other choices', { file: arrival.file })}
                onClick={() => again(arrival)}
              >
                <RotateCw size={15} aria-hidden />
              </IconButton>
            )}
          </li>
        ))}
      </ul>
    </Part>
  );
}
