import { type FitTie, type Item, isFollowing, itemsAmong, type Shape } from '@lambent/core/document';
import { replaceShape } from '@lambent/core/edits';
import { outlinesOfItems, settleItems } from '@lambent/core/fit';
import { loopPlace } from '@lambent/core/geometry';
import type { LengthUnit } from '@lambent/core/units';
import { Button } from '../../ui/button.tsx';
import { formatLength } from '../../ui/figures.ts';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { lowered, t } from '../../words/words.ts';
import { takeApart, toPoints, unlink } from '../commands.ts';
import { useBench, useBenchActions } from '../context.ts';
import { newId } from '../new-id.ts';
import { usualLoop } from '../stages/fit/usual-loop.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { unitOf } from '../state/document.ts';
import { askForPlace } from '../tools/place-tool.ts';
import { editText } from '../tools/text-tool.ts';
import { type Length, lengthsOf, withLoop } from './shape-lengths.ts';

/** The numbers that a shape keeps, and the way to plain points. */
export function ShapeNumbers({ item }: { item: Item }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const { shape } = item;
  const change = (next: Shape, name: string) => {
    actions.edit(name, (job) => replaceShape(job, item.id, [next], newId));
  };
  const lengths = lengthsOf(shape);
  const tie = tieWords(shape, unit);
  const plain = shape.kind === 'path' && !shape.corners;
  if ((plain || shape.kind === 'picture') && !item.link) return null;
  const [shown, apart] = [lengths.filter((length) => !length.apart), lengths.filter((length) => length.apart)];
  const field = ({ label, value, change: make, zero, most }: Length) => (
    <LengthField
      key={label}
      label={label}
      unit={unit}
      value={value}
      takes={zero ? 'not-below-0' : 'more-than-0'}
      commit={(typed) => {
        if (most !== undefined && typed > most + 1e-9) return t('At most {{most}} mm here.', { most: most.toFixed(2) });
        if (typed > 100_000) return t('That is larger than any bed.');
        change(make(typed), t('change {{label}}', { label: lowered(label) }));
        return undefined;
      }}
    />
  );
  return (
    <div className="mt-2 flex flex-col gap-1.5 border-t border-line pt-2">
      {shown.length > 0 && <div className="grid grid-cols-2 gap-1.5">{shown.map(field)}</div>}
      {apart.length > 0 && (
        <details>
          <summary className="cursor-pointer text-[12px] text-quiet">{t('Each corner by itself')}</summary>
          <div className="mt-1 grid grid-cols-2 gap-1.5">{apart.map(field)}</div>
        </details>
      )}
      {shape.kind === 'polygon' && (
        <NumberField
          label={shape.inner === null ? t('Sides') : t('Tips')}
          layout="stack"
          value={shape.sides}
          least={3}
          most={100}
          whole
          commit={(sides) => change({ ...shape, sides }, t('change sides'))}
        />
      )}
      {shape.kind === 'arc' && (
        <NumberField
          label={t('Sweep')}
          layout="stack"
          unit="°"
          value={shape.sweep}
          least={-360}
          most={360}
          commit={(sweep) => change({ ...shape, sweep }, t('change sweep'))}
        />
      )}
      {isFollowing(shape) && (
        <p className="text-[12px] text-quiet">
          {shape.kind === 'offset' && shape.meets
            ? t('Its size follows its part; it lies where you put it.')
            : t('It follows its source, and moves with it alone.')}
        </p>
      )}
      {tie && <p className="text-[12px] text-quiet">{tie}</p>}
      <div className="-ml-2 flex flex-wrap">
        {shape.kind === 'text' && (
          <Button look="quiet" onClick={() => editText(actions, item.id)}>
            {t('Change the text')}
          </Button>
        )}
        {shape.kind === 'combined' && (
          <Button look="quiet" onClick={() => takeApart(actions)}>
            {t('Take apart ({{parts}})', { parts: shape.parts.length })}
          </Button>
        )}
        {shape.kind === 'border' && (
          <Button look="quiet" onClick={() => placeLoop(actions, item.id)}>
            {shape.settings.loop ? t('Move the loop') : t('Add a loop')}
          </Button>
        )}
        {shape.kind === 'border' && shape.settings.loop && (
          <Button look="quiet" onClick={() => change(withLoop(shape, null), t('remove a loop'))}>
            {t('Remove the loop')}
          </Button>
        )}
        {isFollowing(shape) && (
          <Button
            look="quiet"
            title={t('From now on it stays as it is, and can be moved and reshaped by itself')}
            onClick={() => actions.edit(t('settle an outline'), (job) => settleItems(job, new Set([item.id])))}
          >
            {t('Settle it')}
          </Button>
        )}
        {!plain && shape.kind !== 'picture' && !isFollowing(shape) && (
          <Button look="quiet" onClick={() => toPoints(actions)}>
            {t('Turn to points')}
          </Button>
        )}
        {item.link && (
          <Button look="quiet" onClick={() => unlink(actions)}>
            {t('Release this copy')}
          </Button>
        )}
      </div>
    </div>
  );
}

/** What a shape's size goes by, where it goes by something. */
function tieWords(shape: Shape, unit: LengthUnit): string | null {
  const clearance = ({ fit, clearanceMm }: FitTie) => `${fit}, ${formatLength(clearanceMm, unit)}`;
  if (shape.kind === 'offset' && shape.meets) {
    const roles = { pocket: t('A pocket'), insert: t('Goes into it'), lid: t('A lid over it') };
    return `${roles[shape.meets.role]}: ${clearance(shape.meets)}.`;
  }
  if (shape.kind === 'ellipse' && shape.bolt)
    return t('A hole for {{bolt}}, {{room}}.', { bolt: shape.bolt.size, room: shape.bolt.room });
  if ((shape.kind === 'rectangle' || shape.kind === 'slot') && shape.tied) {
    return t('As wide as the stock is thick: {{tied}}.', { tied: clearance(shape.tied) });
  }
  return null;
}

/** Asks where on its edge a border's loop should be. */
function placeLoop(actions: BenchActions, id: string): void {
  askForPlace(actions, t('Click where on the edge the loop should be'), (point) => {
    actions.edit(t('place a loop'), (job) => {
      const shape = job.drawing.items.find((item) => item.id === id)?.shape;
      if (shape?.kind !== 'border') return job;
      const sources = outlinesOfItems(itemsAmong(job.drawing, new Set(shape.sources)));
      const loop = { ...usualLoop, ...shape.settings.loop, ...loopPlace(sources, point) };
      return replaceShape(job, id, [withLoop(shape, loop)], newId);
    });
  });
}
