import {
  type Alignment,
  boundsAmong,
  boxCentre,
  type Combining,
  gridMaps,
  gridThatFits,
  isEmpty,
  ringMaps,
  sheetSafeBox,
} from '@lambent/core';
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignStartHorizontal,
  AlignStartVertical,
  ArrowDownToLine,
  ArrowUpToLine,
  Copy,
  FlipHorizontal2,
  FlipVertical2,
  Group as GroupIcon,
  Lock,
  type LucideIcon,
  SquaresExclude,
  SquaresIntersect,
  SquaresSubtract,
  SquaresUnite,
  Ungroup,
} from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { Button, IconButton } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import {
  type AlignTo,
  addCopies,
  align,
  alignTarget,
  combine,
  duplicate,
  group,
  join,
  keep,
  lock,
  mirror,
  order,
  simplify,
  spread,
  ungroup,
} from '../commands.ts';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf, selectedItems, selectionBox, unitOf } from '../store.ts';
import { thingsOf } from '../thing-names.ts';
import { showDraft } from '../tools/draw.ts';
import { draftOfCopies } from './copies-draft.ts';
import { Part } from './drawer.tsx';
import { PlacePart } from './place-part.tsx';

const alignments: readonly { value: Alignment; text: string; icon: LucideIcon }[] = [
  { value: 'left', text: 'Left edges', icon: AlignStartVertical },
  { value: 'centre', text: 'Middles across', icon: AlignCenterVertical },
  { value: 'right', text: 'Right edges', icon: AlignEndVertical },
  { value: 'top', text: 'Top edges', icon: AlignStartHorizontal },
  { value: 'middle', text: 'Middles up and down', icon: AlignCenterHorizontal },
  { value: 'bottom', text: 'Bottom edges', icon: AlignEndHorizontal },
];

const combinings: readonly { value: Combining; text: string; icon: LucideIcon }[] = [
  { value: 'unite', text: 'Unite', icon: SquaresUnite },
  { value: 'subtract', text: 'Subtract those in front', icon: SquaresSubtract },
  { value: 'intersect', text: 'Intersect', icon: SquaresIntersect },
  { value: 'exclude', text: 'Exclude what overlaps', icon: SquaresExclude },
];

/** What can be done with the selection. */
export function ArrangePart() {
  const actions = useBenchActions();
  const count = useBench((state) => state.selection.size);
  if (count === 0) return null;
  return (
    <>
      <Part title="With the selection">
        <div className="-mx-1 flex">
          <IconButton label="Duplicate (Ctrl D)" onClick={() => duplicate(actions)}>
            <Copy size={17} aria-hidden />
          </IconButton>
          <IconButton label="Mirror left and right" onClick={() => mirror(actions, 90)}>
            <FlipHorizontal2 size={17} aria-hidden />
          </IconButton>
          <IconButton label="Mirror up and down" onClick={() => mirror(actions, 0)}>
            <FlipVertical2 size={17} aria-hidden />
          </IconButton>
          <IconButton label="Group (Ctrl G)" disabled={count < 2} onClick={() => group(actions)}>
            <GroupIcon size={17} aria-hidden />
          </IconButton>
          <IconButton label="Take the group apart (Ctrl Shift G)" onClick={() => ungroup(actions)}>
            <Ungroup size={17} aria-hidden />
          </IconButton>
          <IconButton label="To the front" onClick={() => order(actions, 'front')}>
            <ArrowUpToLine size={17} aria-hidden />
          </IconButton>
          <IconButton label="To the back" onClick={() => order(actions, 'back')}>
            <ArrowDownToLine size={17} aria-hidden />
          </IconButton>
          <IconButton label="Lock" onClick={() => lock(actions)}>
            <Lock size={17} aria-hidden />
          </IconButton>
        </div>
        {count > 1 && (
          <div className="-mx-1 flex">
            {combinings.map(({ value, text, icon: Icon }) => (
              <IconButton key={value} label={text} onClick={() => combine(actions, value)}>
                <Icon size={17} aria-hidden />
              </IconButton>
            ))}
          </div>
        )}
      </Part>
      <AlignPart />
      <PlacePart />
      <RepeatPart />
      <MendPart />
    </>
  );
}

function AlignPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const drawing = useBench((state) => jobOf(state).drawing);
  const selection = useBench((state) => state.selection);
  const stays = useBench((state) => state.stays);
  const hasSheet = useBench((state) => jobOf(state).sheets.length > 0);
  const things = useMemo(
    () => thingsOf(drawing).filter(({ ids }) => ids.some((id) => selection.has(id))),
    [drawing, selection],
  );
  const [to, setTo] = useState<AlignTo>('selection');
  const [gap, setGap] = useState(5);
  const staying = things.find(({ ids }) => ids.includes(stays ?? '')) ?? null;
  const used: AlignTo = to === 'stays' && !staying ? 'selection' : to;
  return (
    <Part title="Align and spread">
      <Choice<AlignTo | `stays:${string}`>
        label="Aligned to"
        value={used === 'stays' && staying ? `stays:${staying.key}` : used}
        options={[
          { value: 'selection', text: 'The selection' },
          ...(things.length > 1
            ? things
                .slice(0, 30)
                .map(({ key, name }) => ({ value: `stays:${key}` as const, text: name, aside: 'stays put' }))
            : []),
          ...(hasSheet ? [{ value: 'sheet' as const, text: 'The sheet' }] : []),
          { value: 'bed', text: 'The bed' },
        ]}
        choose={(value) => {
          const key = value.startsWith('stays:') ? value.slice(6) : null;
          const thing = things.find((known) => known.key === key);
          actions.set({ stays: thing?.ids[0] ?? null });
          actions.pointOut(thing?.ids ?? []);
          setTo(thing ? 'stays' : (value as AlignTo));
        }}
      />
      <div
        className="-mx-1 flex"
        onPointerEnter={() => actions.pointOut([...alignTarget(actions.get(), used).staying])}
      >
        {alignments.map(({ value, text, icon: Icon }) => (
          <IconButton key={value} label={text} onClick={() => align(actions, value, used)}>
            <Icon size={17} aria-hidden />
          </IconButton>
        ))}
      </div>
      {things.length > 1 && (
        <div className="flex items-end gap-1.5">
          <LengthField label="Gap" unit={unit} value={gap} commit={setGap} />
          <Button onClick={() => spread(actions, 'x', 'gap', gap)}>In a row</Button>
          <Button onClick={() => spread(actions, 'y', 'gap', gap)}>In a column</Button>
        </div>
      )}
      {things.length > 2 && (
        <div className="flex gap-1.5">
          <Button onClick={() => spread(actions, 'x', 'gap', null)}>Even across</Button>
          <Button onClick={() => spread(actions, 'y', 'gap', null)}>Even down</Button>
        </div>
      )}
    </Part>
  );
}

type Repeating = 'grid' | 'ring';

/** Rows, grids and rings of the selection, shown on the bed before they are made. */
function RepeatPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const drawing = useBench((state) => jobOf(state).drawing);
  const selection = useBench((state) => state.selection);
  const sheet = useBench((state) => jobOf(state).sheets[0]);
  const mark = useBench((state) => jobOf(state).mark);
  const [kind, setKind] = useState<Repeating>('grid');
  const [grid, setGrid] = useState({ columns: 1, rows: 1, gapX: 3, gapY: 3, brick: false });
  const [ring, setRing] = useState({ count: 6, radius: 40, sweep: 360, turned: true });
  const [linked, setLinked] = useState(false);
  const [open, setOpen] = useState(false);
  const maps = useMemo(() => {
    const box = boundsAmong(drawing, selection);
    if (isEmpty(box)) return [];
    if (kind === 'grid') return gridMaps(box, grid);
    const middle = boxCentre(box);
    return ringMaps(box, { ...ring, centre: mark ?? { x: middle.x, y: middle.y + ring.radius } });
  }, [drawing, selection, kind, grid, ring, mark]);

  useEffect(() => {
    if (!open) return;
    showDraft(actions, maps.length === 0 ? null : draftOfCopies(selectedItems(actions.get()), maps));
    return () => showDraft(actions, null);
  }, [open, maps, actions]);

  const fill = () => {
    if (!sheet) return;
    const found = gridThatFits(selectionBox(actions.get()), sheetSafeBox(sheet), grid.gapX, grid.gapY, grid.brick);
    setGrid(found);
    setOpen(true);
  };
  const change = (part: Partial<typeof grid>) => {
    setGrid({ ...grid, ...part });
    setOpen(true);
  };
  const changeRing = (part: Partial<typeof ring>) => {
    setRing({ ...ring, ...part });
    setOpen(true);
  };
  return (
    <Part title="Repeat">
      <Choice
        label="Repeat"
        value={kind}
        options={[
          { value: 'grid' as const, text: 'Rows and columns' },
          { value: 'ring' as const, text: 'Around a point', aside: mark ? 'the mark' : 'below it' },
        ]}
        choose={(value) => {
          setKind(value);
          setOpen(true);
        }}
      />
      {kind === 'grid' ? (
        <>
          <div className="grid grid-cols-2 gap-1.5">
            <NumberField
              label="Columns"
              layout="stack"
              value={grid.columns}
              least={1}
              most={1000}
              whole
              commit={(columns) => change({ columns })}
            />
            <NumberField
              label="Rows"
              layout="stack"
              value={grid.rows}
              least={1}
              most={1000}
              whole
              commit={(rows) => change({ rows })}
            />
            <LengthField label="Gap across" unit={unit} value={grid.gapX} commit={(gapX) => change({ gapX })} />
            <LengthField label="Gap down" unit={unit} value={grid.gapY} commit={(gapY) => change({ gapY })} />
          </div>
          <div className="flex items-center justify-between gap-2">
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={grid.brick}
                onChange={(event) => change({ brick: event.target.checked })}
              />
              like bricks
            </label>
            {sheet && (
              <Button look="quiet" onClick={fill}>
                As many as fit
              </Button>
            )}
          </div>
        </>
      ) : (
        <>
          <div className="grid grid-cols-2 gap-1.5">
            <NumberField
              label="Copies in all"
              layout="stack"
              value={ring.count}
              least={2}
              most={1000}
              whole
              commit={(count) => changeRing({ count })}
            />
            <NumberField
              label="Over"
              layout="stack"
              unit="°"
              value={ring.sweep}
              least={-360}
              most={360}
              commit={(sweep) => changeRing({ sweep })}
            />
            {!mark && (
              <LengthField label="Radius" unit={unit} value={ring.radius} commit={(radius) => changeRing({ radius })} />
            )}
          </div>
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={ring.turned}
              onChange={(event) => changeRing({ turned: event.target.checked })}
            />
            turned with their place
          </label>
        </>
      )}
      <label className="flex items-center gap-1.5">
        <input type="checkbox" checked={linked} onChange={(event) => setLinked(event.target.checked)} />
        linked: a change of one changes all
      </label>
      <Button
        disabled={maps.length === 0}
        onClick={() => {
          setOpen(false);
          addCopies(actions, `make ${maps.length} copies`, maps, linked, true);
          setGrid({ ...grid, columns: 1, rows: 1 });
        }}
      >
        {maps.length === 0 ? 'Make copies' : `Make ${maps.length} ${maps.length === 1 ? 'copy' : 'copies'}`}
      </Button>
    </Part>
  );
}

/** Joining ends and taking needless points away. */
function MendPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const count = useBench((state) => state.selection.size);
  const [within, setWithin] = useState(0.1);
  const [said, setSaid] = useState<string | null>(null);
  return (
    <Part title="Mend lines">
      <div className="flex items-end gap-1.5">
        <LengthField label="Within" unit={unit} value={within} takes="more-than-0" commit={setWithin} />
        <Button onClick={() => setSaid(join(actions, within))}>Join ends</Button>
        <Button onClick={() => setSaid(simplify(actions, within))}>Simplify</Button>
      </div>
      {count > 1 && (
        <>
          <p className="text-[12px] text-quiet">Of the others, keep what lies to one side of the outline in front:</p>
          <div className="flex gap-1.5">
            <Button onClick={() => keep(actions, 'inside')}>Inside it</Button>
            <Button onClick={() => keep(actions, 'outside')}>Outside it</Button>
          </div>
        </>
      )}
      {said && (
        <p role="status" className="text-[12px] text-quiet">
          {said}
        </p>
      )}
    </Part>
  );
}
