import { boundsAmong, sheetSafeBox } from '@lambent/core/document';
import { gridMaps, gridThatFits, ringMaps } from '@lambent/core/edits';
import { type Box, boxCentre, isEmpty } from '@lambent/core/geometry';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { LengthField } from '../../../ui/length-field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Tick } from '../../../ui/tick.tsx';
import { t } from '../../../words/words.ts';
import { addCopies } from '../../commands.ts';
import { useBench, useBenchActions, useSelected } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import { selectedItems, selectionBox } from '../../state/hand.ts';
import { Part } from '../drawer.tsx';
import { draftOfCopies } from './copies-draft.ts';

type Repeating = 'grid' | 'ring';

const usualRepeat: { readonly kind: Repeating; readonly linked: boolean } = { kind: 'grid', linked: false };
const usualGrid = { columns: 1, rows: 1, gapX: 3, gapY: 3, brick: false };
const usualRing = { count: 6, radius: 40, sweep: 360, turned: true };

/** Rows, grids and rings of the selection, shown on the bed before they are made. */
export function RepeatPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const { drawing, selection } = useSelected();
  const sheet = useBench((state) => jobOf(state).sheets[0]);
  const mark = useBench((state) => jobOf(state).mark);
  const [{ kind, linked }, keep] = useKeptSettings('repeat', usualRepeat);
  const [grid, keepGrid] = useKeptSettings('grid of copies', usualGrid);
  const [ring, keepRing] = useKeptSettings('ring of copies', usualRing);
  const [open, setOpen] = useState(false);
  const mapsOf = useCallback(
    (box: Box) => {
      if (isEmpty(box)) return [];
      if (kind === 'grid') return gridMaps(box, grid);
      const middle = boxCentre(box);
      return ringMaps(box, { ...ring, centre: mark ?? { x: middle.x, y: middle.y + ring.radius } });
    },
    [kind, grid, ring, mark],
  );
  const maps = useMemo(() => mapsOf(boundsAmong(drawing, selection)), [drawing, selection, mapsOf]);

  useEffect(() => {
    if (!open) return;
    actions.showDraft(maps.length === 0 ? null : draftOfCopies(selectedItems(actions.get()), maps));
    return () => actions.showDraft(null);
  }, [open, maps, actions]);

  const fill = () => {
    if (!sheet) return;
    const found = gridThatFits(selectionBox(actions.get()), sheetSafeBox(sheet), grid.gapX, grid.gapY, grid.brick);
    keepGrid(found);
    setOpen(true);
  };
  const change = (part: Partial<typeof grid>) => {
    keepGrid(part);
    setOpen(true);
  };
  const changeRing = (part: Partial<typeof ring>) => {
    keepRing(part);
    setOpen(true);
  };
  return (
    <Part title={t('Repeat')} folds>
      <Choice
        label={t('Repeat')}
        value={kind}
        options={[
          { value: 'grid' as const, text: t('Rows and columns') },
          { value: 'ring' as const, text: t('Around a point'), aside: mark ? t('the mark') : t('below it') },
        ]}
        choose={(value) => {
          keep({ kind: value });
          setOpen(true);
        }}
      />
      {kind === 'grid' ? (
        <>
          <div className="grid grid-cols-2 gap-1.5">
            <NumberField
              label={t('Columns')}
              layout="stack"
              value={grid.columns}
              least={1}
              most={1000}
              whole
              commit={(columns) => change({ columns })}
            />
            <NumberField
              label={t('Rows')}
              layout="stack"
              value={grid.rows}
              least={1}
              most={1000}
              whole
              commit={(rows) => change({ rows })}
            />
            <LengthField label={t('Gap across')} unit={unit} value={grid.gapX} commit={(gapX) => change({ gapX })} />
            <LengthField label={t('Gap down')} unit={unit} value={grid.gapY} commit={(gapY) => change({ gapY })} />
          </div>
          <div className="flex items-center justify-between gap-2">
            <Tick checked={grid.brick} set={(checked) => change({ brick: checked })}>
              {t('like bricks')}
            </Tick>
            {sheet && (
              <Button
                look="quiet"
                disabled={Boolean(sheet.angle)}
                title={sheet.angle ? t('The sheet is turned: turn it straight to fill it') : undefined}
                onClick={fill}
              >
                {t('As many as fit')}
              </Button>
            )}
          </div>
        </>
      ) : (
        <>
          <div className="grid grid-cols-2 gap-1.5">
            <NumberField
              label={t('Copies in all')}
              layout="stack"
              value={ring.count}
              least={2}
              most={1000}
              whole
              commit={(count) => changeRing({ count })}
            />
            <NumberField
              label={t('Over')}
              layout="stack"
              unit="°"
              value={ring.sweep}
              least={-360}
              most={360}
              commit={(sweep) => changeRing({ sweep })}
            />
            {!mark && (
              <LengthField
                label={t('Radius')}
                unit={unit}
                value={ring.radius}
                commit={(radius) => changeRing({ radius })}
              />
            )}
          </div>
          <Tick checked={ring.turned} set={(checked) => changeRing({ turned: checked })}>
            {t('turned with their place')}
          </Tick>
        </>
      )}
      <Tick checked={linked} set={(checked) => keep({ linked: checked })}>
        {t('linked: a change of one changes all')}
      </Tick>
      <Button
        disabled={maps.length === 0}
        onClick={() => {
          setOpen(false);
          // What is shown may be a moment behind.
          const now = mapsOf(selectionBox(actions.get()));
          addCopies(actions, t('make {{now}} copies', { now: now.length }), now, linked ? 'all' : 'none', true);
          keepGrid({ columns: 1, rows: 1 });
        }}
      >
        {maps.length === 0 ? t('Make copies') : `Make ${maps.length} ${maps.length === 1 ? t('copy') : t('copies')}`}
      </Button>
    </Part>
  );
}
