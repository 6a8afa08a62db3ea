import { type FitTie, type Item, isFollowing, itemsAmong, type Shape } from '@lambent/core/document';
import { replaceShape } from '@lambent/core/edits';
import { outlinesOfItems, settleItems } from '@lambent/core/fit';
import { loopPlace } from '@lambent/core/geometry';
import type { LengthUnit } from '@lambent/core/units';
import { Button } from '../../ui/button.tsx';
import { formatLength } from '../../ui/figures.ts';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
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
        if (most !== undefined && typed > most + 1e-9) return `At most ${most.toFixed(2)} mm here.`;
        if (typed > 100_000) return 'That is larger than any bed.';
        change(make(typed), `change ${label.toLowerCase()}`);
        return undefined;
      }}
    />
  );
  return (
    <div className="mt-2 flex flex-col gap-1.5 border-t border-line pt-2">
      {shown.length > 0 && <div className="grid grid-cols-2 gap-1.5">{shown.map(field)}</div>}
      {apart.length > 0 && (
        <details>
          <summary className="cursor-pointer text-[12px] text-quiet">Each corner by itself</summary>
          <div className="mt-1 grid grid-cols-2 gap-1.5">{apart.map(field)}</div>
        </details>
      )}
      {shape.kind === 'polygon' && (
        <NumberField
          label={shape.inner === null ? 'Sides' : 'Tips'}
          layout="stack"
          value={shape.sides}
          least={3}
          most={100}
          whole
          commit={(sides) => change({ ...shape, sides }, 'change sides')}
        />
      )}
      {shape.kind === 'arc' && (
        <NumberField
          label="Sweep"
          layout="stack"
          unit="°"
          value={shape.sweep}
          least={-360}
          most={360}
          commit={(sweep) => change({ ...shape, sweep }, 'change sweep')}
        />
      )}
      {isFollowing(shape) && (
        <p className="text-[12px] text-quiet">
          {shape.kind === 'offset' && shape.meets
            ? 'Its size follows its part; it lies where you put it.'
            : 'It follows its source, and moves with it alone.'}
        </p>
      )}
      {tie && <p className="text-[12px] text-quiet">{tie}</p>}
      <div className="-ml-2 flex flex-wrap">
        {shape.kind === 'text' && (
          <Button look="quiet" onClick={() => editText(actions, item.id)}>
            Change the text
          </Button>
        )}
        {shape.kind === 'combined' && (
          <Button look="quiet" onClick={() => takeApart(actions)}>
            Take apart ({shape.parts.length})
          </Button>
        )}
        {shape.kind === 'border' && (
          <Button look="quiet" onClick={() => placeLoop(actions, item.id)}>
            {shape.settings.loop ? 'Move the loop' : 'Add a loop'}
          </Button>
        )}
        {shape.kind === 'border' && shape.settings.loop && (
          <Button look="quiet" onClick={() => change(withLoop(shape, null), 'remove a loop')}>
            Remove the loop
          </Button>
        )}
        {isFollowing(shape) && (
          <Button
            look="quiet"
            title="From now on it stays as it is, and can be moved and reshaped by itself"
            onClick={() => actions.edit('settle an outline', (job) => settleItems(job, new Set([item.id])))}
          >
            Settle it
          </Button>
        )}
        {!plain && shape.kind !== 'picture' && !isFollowing(shape) && (
          <Button look="quiet" onClick={() => toPoints(actions)}>
            Turn to points
          </Button>
        )}
        {item.link && (
          <Button look="quiet" onClick={() => unlink(actions)}>
            Release this copy
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
    const roles = { pocket: 'A pocket', insert: 'Goes into it', lid: 'A lid over it' };
    return `${roles[shape.meets.role]}: ${clearance(shape.meets)}.`;
  }
  if (shape.kind === 'ellipse' && shape.bolt) return `A hole for ${shape.bolt.size}, ${shape.bolt.room}.`;
  if ((shape.kind === 'rectangle' || shape.kind === 'slot') && shape.tied) {
    return `As wide as the stock is thick: ${clearance(shape.tied)}.`;
  }
  return null;
}

/** Asks where on its edge a border's loop should be. */
function placeLoop(actions: BenchActions, id: string): void {
  askForPlace(actions, 'Click where on the edge the loop should be', (point) => {
    actions.edit('place a loop', (job) => {
      const shape = job.drawing.items.find((item) => item.id === id)?.shape;
      if (shape?.kind !== 'border') return job;
      const sources = outlinesOfItems(itemsAmong(job.drawing, new Set(shape.sources)));
      const loop = { ...usualLoop, ...shape.settings.loop, ...loopPlace(sources, point) };
      return replaceShape(job, id, [withLoop(shape, loop)], newId);
    });
  });
}
