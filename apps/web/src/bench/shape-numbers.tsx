import { type FitTie, type Item, isFollowing, itemsAmong, type Shape } from '@lambent/core/document';
import { replaceShape } from '@lambent/core/edits';
import { outlinesOfItems, settleItems } from '@lambent/core/fit';
import { type BorderSettings, loopPlace } from '@lambent/core/geometry';
import { formatLength, type LengthUnit } from '@lambent/core/units';
import { Button } from '../ui/button.tsx';
import { LengthField } from '../ui/length-field.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { takeApart, toPoints, unlink } from './commands.ts';
import { useBench, useBenchActions } from './context.ts';
import { usualLoop } from './stages/fit/border-part.tsx';
import type { BenchActions } from './state/bench-state.ts';
import { unitOf } from './state/document.ts';
import { newId } from './tools/draw.ts';
import { askForPlace } from './tools/place-tool.ts';
import { editText } from './tools/text-tool.ts';

/** A length of a shape that can be typed. */
interface Length {
  readonly label: string;
  readonly value: number;
  readonly change: (value: number) => Shape;
  /** Whether it may be 0. */
  readonly zero?: boolean;
  readonly most?: number;
  /** One of several that are seldom wanted apart. */
  readonly apart?: boolean;
}

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

type BorderShape = Extract<Shape, { kind: 'border' }>;

function withLoop(shape: BorderShape, loop: BorderSettings['loop']): Shape {
  return { ...shape, settings: { ...shape.settings, loop } };
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

function lengthsOf(shape: Shape): Length[] {
  switch (shape.kind) {
    case 'rectangle': {
      const { width, height, rx, ry, corners } = shape;
      const half = Math.min(width, height) / 2;
      // A side that is typed goes by the stock's thickness no more.
      const freed = (side: 'width' | 'height') => {
        const { tied, ...plain } = shape;
        return tied?.side === side ? plain : shape;
      };
      const own = corners ?? [rx, rx, rx, rx];
      const cornerNames = ['Top left', 'Top right', 'Bottom right', 'Bottom left'];
      const even = !corners && rx === ry;
      return [
        { label: 'Width', value: width, change: (value) => ({ ...freed('width'), width: value }) },
        { label: 'Height', value: height, change: (value) => ({ ...freed('height'), height: value }) },
        ...(even || corners
          ? [
              {
                label: 'Corners',
                value: corners ? Math.max(...corners) : rx,
                zero: true,
                most: half,
                change: (value: number): Shape => {
                  const { corners: _, ...rest } = shape;
                  return { ...rest, rx: value, ry: value };
                },
              },
              ...cornerNames.map((label, i) => ({
                label,
                value: own[i],
                zero: true,
                apart: true,
                most: Math.min(width, height),
                change: (value: number): Shape => ({
                  ...shape,
                  corners: own.map((radius, k) => (k === i ? value : radius)) as [number, number, number, number],
                }),
              })),
            ]
          : []),
      ];
    }
    case 'ellipse': {
      const round = shape.rx === shape.ry;
      const { bolt: _, ...plain } = shape;
      if (round) {
        return [
          { label: 'Diameter', value: 2 * shape.rx, change: (value) => ({ ...plain, rx: value / 2, ry: value / 2 }) },
        ];
      }
      return [
        { label: 'Across', value: 2 * shape.rx, change: (value) => ({ ...plain, rx: value / 2 }) },
        { label: 'Up', value: 2 * shape.ry, change: (value) => ({ ...plain, ry: value / 2 }) },
      ];
    }
    case 'offset': {
      const { settings, meets } = shape;
      if (meets) return [];
      const inward = settings.by < 0;
      const change = (value: number): Shape => ({ ...shape, settings: { ...settings, by: inward ? -value : value } });
      return [{ label: inward ? 'Inward by' : 'Outward by', value: Math.abs(settings.by), change }];
    }
    case 'border': {
      const { settings } = shape;
      const { loop } = settings;
      const length = (label: string, name: Exclude<keyof BorderSettings, 'loop'>): Length => ({
        label,
        value: settings[name],
        zero: name !== 'bridgeWidth',
        most: 1000,
        change: (value) => ({ ...shape, settings: { ...settings, [name]: value } }),
      });
      return [
        length('Distance', 'by'),
        length('Inner radius', 'innerRadius'),
        length('Bridge gaps to', 'bridgeGap'),
        length('Fill inlets to', 'inletWidth'),
        ...(loop
          ? [{ label: 'Hole', value: loop.holeMm, change: (holeMm: number) => withLoop(shape, { ...loop, holeMm }) }]
          : []),
      ];
    }
    case 'slot': {
      const { x1, y1, x2, y2, width } = shape;
      const { tied: _, ...plain } = shape;
      const between = Math.hypot(x2 - x1, y2 - y1);
      const [ux, uy] = between === 0 ? [1, 0] : [(x2 - x1) / between, (y2 - y1) / between];
      const lengthen = (value: number): Shape => {
        const by = Math.max(0, value - width);
        return { ...shape, x2: x1 + ux * by, y2: y1 + uy * by };
      };
      return [
        { label: 'Length', value: between + width, change: lengthen },
        { label: 'Slot width', value: width, change: (value) => ({ ...plain, width: value }) },
      ];
    }
    case 'polygon':
      return [
        {
          label: 'Radius',
          value: shape.radius,
          change: (value) => ({
            ...shape,
            radius: value,
            inner: shape.inner === null ? null : (shape.inner * value) / shape.radius,
          }),
        },
        ...(shape.inner === null
          ? []
          : [
              {
                label: 'Inner radius',
                value: shape.inner,
                most: shape.radius,
                change: (value: number): Shape => ({ ...shape, inner: value }),
              },
            ]),
      ];
    case 'arc':
      return [{ label: 'Radius', value: shape.radius, change: (value) => ({ ...shape, radius: value }) }];
    case 'path':
      return (shape.corners ?? []).map((corner, i) => ({
        label: corner.kind === 'round' ? `Corner ${i + 1}` : `Cut ${i + 1}`,
        value: corner.size,
        zero: true,
        change: (value) => ({
          ...shape,
          corners: (shape.corners ?? []).map((known) => (known === corner ? { ...known, size: value } : known)),
        }),
      }));
    default:
      return [];
  }
}
