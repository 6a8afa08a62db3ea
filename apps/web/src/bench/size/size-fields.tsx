import {
  type Anchor,
  anchorPoint,
  arrivalItemId,
  boundsAmong,
  itemsAmong,
  type Sheet,
  sheetUnder,
} from '@lambent/core/document';
import { moveItems, rotateItems, scaleItems, thingsAmong, transformThings, turnOf } from '@lambent/core/edits';
import { type Box, boxCentre, isEmpty, scaling } from '@lambent/core/geometry';
import { countsDown, toMachine } from '@lambent/core/machine';
import { Link2, Link2Off, RotateCcw, RotateCw, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { IconButton } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { parseAngle } from '../../ui/plain-number.ts';
import { TypedField } from '../../ui/typed-field.tsx';
import { t } from '../../words/words.ts';
import { deleteSelection } from '../commands.ts';
import { type Selected, useBench, useBenchActions, useSelected } from '../context.ts';
import { sheetName } from '../sheet-choice.ts';
import { withKeys } from '../shortcuts.ts';
import { jobOf, machineOf, unitOf } from '../state/document.ts';
import { anchorOf, selectedItems, selectionBox } from '../state/hand.ts';
import { ownSizeOf, resizeOwn } from './own-size.ts';
import { ShapeNumbers } from './shape-numbers.tsx';

const anchors: readonly Anchor[] = [0, 0.5, 1].flatMap((v) => [0, 0.5, 1].map((u) => ({ u, v })));
const anchorNames = [
  t('top left'),
  'top',
  t('top right'),
  'left',
  'centre',
  'right',
  t('bottom left'),
  'bottom',
  t('bottom right'),
];

/** Where the selection is and how large, as figures that can be typed. */
export function SizeFields() {
  const actions = useBenchActions();
  const selected = useSelected();
  const { drawing, selection } = selected;
  const unit = useBench(unitOf);
  const machine = useBench(machineOf);
  const count = selection.size;
  const { u, v } = useBench(useShallow(anchorOf));
  const [each, setEach] = useState(false);
  const bounds = useMemo(() => boundsAmong(drawing, selection), [drawing, selection]);
  const single = count === 1 ? itemsAmong(drawing, selection)[0] : undefined;
  const [locked, setLocked] = useLock(selected);
  const own = useMemo(() => single && ownSizeOf(single), [single]);
  if (isEmpty(bounds)) return null;

  const anchor = { u, v };
  const measure = (bounds: Box) => {
    const point = anchorPoint(bounds, anchor);
    const place = toMachine(machine, point.x, point.y);
    return { point, place, width: bounds.maxX - bounds.minX, height: bounds.maxY - bounds.minY };
  };
  const { place, ...frame } = measure(bounds);
  const { width, height } = own ?? frame;
  const down = countsDown(machine);

  // What is shown may be a moment behind: what is typed goes by how things are now.
  const now = () => ({ selection: actions.get().selection, ...measure(selectionBox(actions.get())) });
  const moveTo = (axis: 'x' | 'y', to: number) => {
    const { selection, place } = now();
    const [dx, dy] = axis === 'x' ? [to - place.x, 0] : [0, (to - place.y) * down];
    actions.edit('move', (job) => moveItems(job, selection, dx, dy));
    return undefined;
  };
  const factorsFor = (side: 'width' | 'height', factor: number): [sx: number, sy: number] => {
    if (locked) return [factor, factor];
    return side === 'width' ? [factor, 1] : [1, factor];
  };
  const scaleTo = (side: 'width' | 'height', size: number): string | undefined => {
    const { selection, point, ...frame } = now();
    const [item, ...others] = selectedItems(actions.get());
    const own = item && others.length === 0 ? ownSizeOf(item) : null;
    const { [side]: was } = own ?? frame;
    if (!(size > 0)) return t('A size is more than 0.');
    if (was === 0) return t('It has no {{side}} to scale.', { side });
    if (size > 100_000) return t('That is larger than any bed.');
    const [sx, sy] = factorsFor(side, size / was);
    if (each) return eachTo(side, size);
    if (own && !locked) {
      actions.edit(t('change {{side}}', { side }), (job) => resizeOwn(job, item, side, size, anchor));
      return undefined;
    }
    actions.edit(t('scale to {{side}}', { side }), (job) => scaleItems(job, selection, sx, sy, point));
    return undefined;
  };
  /** Gives every thing of the selection the same size, each about its own anchor. */
  const eachTo = (side: 'width' | 'height', size: number): undefined => {
    actions.edit(t('scale each to {{side}}', { side }), (job) =>
      transformThings(job, thingsAmong(job.drawing, actions.get().selection), ({ bounds: own }) => {
        const was = side === 'width' ? own.maxX - own.minX : own.maxY - own.minY;
        return was === 0 ? null : scaling(...factorsFor(side, size / was), anchorPoint(own, anchor));
      }),
    );
  };
  const scaleBy = (percent: number): undefined => {
    const { selection, point } = now();
    actions.edit(t('scale to {{percent}} %', { percent }), (job) =>
      scaleItems(job, selection, percent / 100, percent / 100, point),
    );
  };
  const turn = (degrees: number): undefined => {
    const middle = boxCentre(selectionBox(actions.get()));
    actions.edit(t('turn {{degrees}}°', { degrees }), (job) =>
      rotateItems(job, actions.get().selection, degrees, middle),
    );
    return undefined;
  };
  return (
    <>
      <OnSheet />
      <div className="mt-1 grid grid-cols-2 gap-x-2.5 gap-y-1.5">
        <LengthField label="X" layout="row" unit={unit} value={place.x} commit={(x) => moveTo('x', x)} />
        <LengthField label="Y" layout="row" unit={unit} value={place.y} commit={(y) => moveTo('y', y)} />
        <LengthField label="W" layout="row" unit={unit} value={width} commit={(size) => scaleTo('width', size)} />
        <LengthField label="H" layout="row" unit={unit} value={height} commit={(size) => scaleTo('height', size)} />
      </div>
      {single && own && isTurned(turnOf(single)) && (
        <p className="mt-1 text-[12px] text-quiet">{t('W and H are along its own sides.')}</p>
      )}
      {count > 1 && (
        <div className="mt-2">
          <Choice
            label={t('W and H of')}
            value={each ? 'each' : 'one'}
            options={[
              { value: 'one' as const, text: t('The whole selection') },
              { value: 'each' as const, text: t('Each piece by itself') },
            ]}
            choose={(value) => setEach(value === 'each')}
          />
        </div>
      )}
      <div className="mt-2 flex gap-2.5 pointer-coarse:flex-col">
        <AnchorGrid anchor={anchor} choose={actions.chooseAnchor} />
        <div className="min-w-0 flex-1">
          <div className="flex gap-2.5">
            <NumberField label="%" value={100} least={0.1} most={100_000} commit={scaleBy} />
            <TypedField
              label="∠"
              layout="row"
              text={single ? String(Math.round(turnOf(single) * -100) / 100 || 0) : '0'}
              unit="°"
              parse={parseAngle}
              commit={(degrees) => turn(single ? -degrees - turnOf(single) : -degrees)}
            />
          </div>
          <div className="-ml-1 mt-0.5 flex items-center">
            <IconButton
              label={locked ? t('Proportions are kept') : t('Proportions are free')}
              pressed={locked}
              onClick={() => setLocked(!locked)}
            >
              {locked ? <Link2 size={16} aria-hidden /> : <Link2Off size={16} aria-hidden />}
            </IconButton>
            <IconButton label={t('Turn a quarter left')} onClick={() => turn(-90)}>
              <RotateCcw size={16} aria-hidden />
            </IconButton>
            <IconButton label={t('Turn a quarter right')} onClick={() => turn(90)}>
              <RotateCw size={16} aria-hidden />
            </IconButton>
            <IconButton
              label={withKeys(t('Delete'), 'delete')}
              className="ml-auto"
              onClick={() => deleteSelection(actions)}
            >
              <Trash2 size={16} aria-hidden />
            </IconButton>
          </div>
        </div>
      </div>
      {single && <ShapeNumbers key={single.id} item={single} />}
    </>
  );
}

/**
 * Whether the proportions are kept: usually those of pictures and of what was brought in, and as it was chosen for what is
 * selected.
 */
function useLock({ drawing, selection }: Selected): [isLocked: boolean, lock: (isLocked: boolean) => void] {
  const arrivals = useBench((state) => jobOf(state).arrivals);
  const isUsual = useMemo(() => {
    const starts = arrivals.map((arrival) => arrivalItemId(arrival.id, ''));
    return itemsAmong(drawing, selection).some(
      ({ id, shape }) => shape.kind === 'picture' || starts.some((start) => id.startsWith(start)),
    );
  }, [drawing, arrivals, selection]);
  const [chosen, choose] = useState<{ selection: ReadonlySet<string>; isLocked: boolean } | null>(null);
  const isLocked = chosen?.selection === selection ? chosen.isLocked : isUsual;
  return [isLocked, (isLocked) => choose({ selection, isLocked })];
}

/** Whether the sides of something turned so far, in degrees, are not those of its frame. */
function isTurned(degrees: number): boolean {
  return Math.abs(degrees - Math.round(degrees / 180) * 180) > 1e-6;
}

/** Of several sheets, the one that the selection lies on. */
function OnSheet() {
  const sheets = useBench((state) => jobOf(state).sheets);
  return sheets.length < 2 ? null : <OnWhichSheet sheets={sheets} />;
}

function OnWhichSheet({ sheets }: { sheets: readonly Sheet[] }) {
  const materials = useBench((state) => state.shop.materials);
  const chosen = useBench(useShallow(selectedItems));
  const on = new Set(chosen.map((item) => sheetUnder(sheets, item)));
  const [sheet] = on;
  const where = sheet ? t('on {{sheets}}', { sheets: sheetName(sheets, sheet, materials) }) : t('beside the sheets');
  return <p className="-mt-1.5 mb-2 truncate text-[12px] text-quiet">{on.size > 1 ? t('on several sheets') : where}</p>;
}

function AnchorGrid({ anchor, choose }: { anchor: Anchor; choose: (anchor: Anchor) => void }) {
  return (
    <fieldset
      className="grid h-[74px] w-[74px] shrink-0 pointer-coarse:size-[136px] grid-cols-3 place-items-center border border-line"
      title={t('The point that X and Y are of, and that stays put')}
    >
      <legend className="sr-only">{t('Point that X and Y are of')}</legend>
      {anchors.map((place, i) => {
        const on = place.u === anchor.u && place.v === anchor.v;
        return (
          <button
            key={anchorNames[i]}
            type="button"
            aria-label={anchorNames[i]}
            aria-pressed={on}
            onClick={() => choose(place)}
            className="flex size-6 items-center justify-center"
          >
            <span
              className={`block rounded-[2px] border ${on ? 'size-3 border-petrol bg-petrol' : 'size-2 border-quiet bg-raised'}`}
            />
          </button>
        );
      })}
    </fieldset>
  );
}
