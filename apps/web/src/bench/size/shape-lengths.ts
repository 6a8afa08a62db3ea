import type { Shape } from '@lambent/core/document';
import type { BorderSettings } from '@lambent/core/geometry';
import { t } from '../../words/words.ts';

/** A length of a shape that can be typed. */
export interface Length {
  readonly label: string;
  readonly value: number;
  readonly change: (value: number) => Shape;
  /** Whether it may be 0. */
  readonly zero?: boolean;
  readonly most?: number;
  /** One of several that are seldom wanted apart. */
  readonly apart?: boolean;
}

/** The lengths of a shape that can be typed, but for its width and height (own-size.ts), each with what it makes of the shape. */
export function lengthsOf(shape: Shape): Length[] {
  switch (shape.kind) {
    case 'rectangle': {
      const { width, height, rx, ry, corners } = shape;
      const half = Math.min(width, height) / 2;
      const own = corners ?? [rx, rx, rx, rx];
      const cornerNames = [t('Top left'), t('Top right'), t('Bottom right'), t('Bottom left')];
      const even = !corners && rx === ry;
      return [
        ...(even || corners
          ? [
              {
                label: t('Corners'),
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
          {
            label: t('Diameter'),
            value: 2 * shape.rx,
            change: (value) => ({ ...plain, rx: value / 2, ry: value / 2 }),
          },
        ];
      }
      return [];
    }
    case 'offset': {
      const { settings, meets } = shape;
      if (meets) return [];
      const inward = settings.by < 0;
      const change = (value: number): Shape => ({ ...shape, settings: { ...settings, by: inward ? -value : value } });
      return [{ label: inward ? t('Inward by') : t('Outward by'), value: Math.abs(settings.by), change }];
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
        length(t('Distance'), 'by'),
        length(t('Inner radius'), 'innerRadius'),
        length(t('Bridge gaps to'), 'bridgeGap'),
        length(t('Fill inlets to'), 'inletWidth'),
        ...(loop
          ? [{ label: t('Hole'), value: loop.holeMm, change: (holeMm: number) => withLoop(shape, { ...loop, holeMm }) }]
          : []),
      ];
    }
    case 'slot': {
      const { x1, y1, x2, y2, width } = shape;
      const { tied: _, ...plain } = shape;
      const between = Math.hypot(x2 - x1, y2 - y1);
      const [ux, uy] = between === 0 ? [1, 0] : [(x2 - x1) / between, (y2 - y1) / between];
      const lengthen = (value: number): Shape => {
        const distance = Math.max(0, value - width);
        return { ...shape, x2: x1 + ux * distance, y2: y1 + uy * distance };
      };
      return [
        { label: t('Length'), value: between + width, change: lengthen },
        { label: t('Slot width'), value: width, change: (value) => ({ ...plain, width: value }) },
      ];
    }
    case 'polygon':
      return [
        {
          label: t('Radius'),
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
                label: t('Inner radius'),
                value: shape.inner,
                most: shape.radius,
                change: (value: number): Shape => ({ ...shape, inner: value }),
              },
            ]),
      ];
    case 'arc':
      return [{ label: t('Radius'), value: shape.radius, change: (value) => ({ ...shape, radius: value }) }];
    case 'path':
      return (shape.corners ?? []).map((corner, i) => ({
        label: corner.kind === 'round' ? t('Corner {{i}}', { i: i + 1 }) : t('Cut {{i}}', { i: i + 1 }),
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

export type BorderShape = Extract<Shape, { kind: 'border' }>;

/** A border with another loop to hang it by. */
export function withLoop(shape: BorderShape, loop: BorderSettings['loop']): Shape {
  return { ...shape, settings: { ...shape.settings, loop } };
}
