import { boundsOf, type Item, itemsAmong, pathOf } from '@lambent/core/document';
import { flipFill, unflip } from '@lambent/core/edits';
import { boxHeight, boxWidth, subpathsOf } from '@lambent/core/geometry';
import { engravesAreas } from '@lambent/core/operations';
import { useMemo, useState } from 'react';
import { Button } from '../../../ui/button.tsx';
import { counted } from '../../../ui/counted.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { newId } from '../../new-id.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import { chooseTool } from '../../tools/choose.ts';
import { Part } from '../drawer.tsx';

/** What engraving fills: asking why, and swapping figure and ground within a border. */
export function FillPart() {
  const actions = useBenchActions();
  const { layers, placed } = useBench((state) => state.prepared.meaning);
  const asking = useBench((state) => state.tool?.name === 'why');
  const flips = useBench((state) => jobOf(state).flips);
  const engraves = layers.some(({ id, operation }) => engravesAreas(operation) && (placed.get(id)?.length ?? 0) > 0);
  if (!engraves) return null;
  return (
    <Part title={t('What gets filled')}>
      <Button onClick={() => chooseTool(actions, asking ? 'pick' : 'why')} aria-pressed={asking}>
        {asking ? t('Stop asking') : t('Why is this filled?')}
      </Button>
      <Swap />
      {flips.length > 0 && (
        <ul className="flex flex-col">
          {flips.map(({ id, itemIds, borderId }) => (
            <li
              key={id}
              className="flex items-center justify-between gap-2 rounded-lg pl-2 hover:bg-table"
              onPointerEnter={() => actions.pointOut([...itemIds, borderId])}
              onPointerLeave={() => actions.pointOut([])}
            >
              <span>{t('Ground around {{figures}}', { figures: counted(itemIds.length, 'figure') })}</span>
              <Button
                look="quiet"
                onClick={() => actions.edit(t('flip the fill back'), (job) => unflip(job, new Set(itemIds)))}
              >
                {t('Flip back')}
              </Button>
            </li>
          ))}
        </ul>
      )}
    </Part>
  );
}

/** Offered where figures and an outline around them are selected. */
function Swap() {
  const actions = useBenchActions();
  const selection = useBench((state) => state.selection);
  const { layers, placed } = useBench((state) => state.prepared.meaning);
  const drawing = useBench((state) => jobOf(state).drawing);
  const unit = useBench(unitOf);
  const [inset, setInset] = useState(0);
  const { figures, border } = useMemo(() => {
    const engraved = new Set(
      layers.flatMap(({ id, operation }) =>
        engravesAreas(operation) ? (placed.get(id) ?? []).map(({ item }) => item.id) : [],
      ),
    );
    return figuresAndBorder(itemsAmong(drawing, selection), engraved);
  }, [drawing, selection, layers, placed]);
  if (!border || figures.length === 0) {
    return (
      <p className="text-[12px] text-quiet">
        {t('To burn the ground and leave the figure: select the figures and a closed outline around them.')}
      </p>
    );
  }
  return (
    <div className="flex items-end gap-1.5">
      <Button
        onClick={() => {
          const id = newId();
          const ids = figures.map((item) => item.id);
          actions.edit(t('flip the fill'), (job) => flipFill(job, id, ids, border.id, inset));
        }}
      >
        {t('Flip fill of {{figures}}', { figures: figures.length })}
      </Button>
      <LengthField label={t('Inside the border by')} unit={unit} value={inset} takes="not-below-0" commit={setInset} />
    </div>
  );
}

/** Of a selection: what is engraved, and the closed outline around it, the largest that is not engraved, else the largest. */
function figuresAndBorder(chosen: readonly Item[], engraved: ReadonlySet<string>) {
  const size = (item: Item) => boxWidth(boundsOf(item)) * boxHeight(boundsOf(item));
  const closed = chosen
    .filter((item) => item.shape.kind !== 'picture' && [...subpathsOf(pathOf(item))].some((line) => line.closed))
    .sort((a, b) => size(b) - size(a));
  const border = closed.find(({ id }) => !engraved.has(id)) ?? (closed.length > 1 ? closed[0] : null);
  return { border, figures: chosen.filter((item) => item !== border && engraved.has(item.id)) };
}
