import { choice, count, length, type NumbersOf, yes } from '../fields.ts';
import { slidingFields } from '../fit-fields.ts';
import type { Form } from '../forms.ts';

const mostMm = 2000;

/** What a layered base is asked for. */
export const baseFields = {
  outline: choice('Outline', 'rectangle', { rectangle: 'Rectangle', round: 'Round' }),
  width: length('Width', 120, [5, mostMm]),
  depth: length('Depth', 80, [5, mostMm]),
  corner: length('Corner radius', 6, [0, 500]),
  layers: count('Layers', 3, [1, 40]),
  pocket: choice('Pocket', 'rectangle', { none: 'None', rectangle: 'Rectangle', round: 'Round' }),
  pocketWidth: length('Goes in: width', 60, [1, mostMm], 'Of what goes in; the pocket is wider by the fit.'),
  pocketDepth: length('Goes in: depth', 40, [1, mostMm], 'Of what goes in.'),
  pocketLayers: count('Pocket through layers', 2, [1, 40], 'Counted from the top.'),
  ...slidingFields('Fit of what goes in'),
  channel: choice('Channel', 'none', {
    none: 'None',
    front: 'To the front',
    back: 'To the back',
    left: 'To the left',
    right: 'To the right',
  }),
  channelWidth: length('Channel width', 8, [0.5, mostMm]),
  channelFrom: count('Channel from layer', 2, [1, 40], 'Layer 1 is the lowest.'),
  channelTo: count('Channel to layer', 2, [1, 40]),
  plate: yes('A plate let into the top', false),
  plateWidth: length('Plate width', 80, [1, mostMm]),
  plateDepth: length('Plate depth', 55, [1, mostMm]),
  pins: choice('Pin holes', 'all', { none: 'None', all: 'Through all layers', hidden: 'Not through the top' }),
  pinWidth: length('Pin width', 3, [0.3, 50]),
  pinInset: length('Pins from the edge', 8, [0.5, 500], 'To the middle of the pin.'),
} as const;

export type BaseNumbers = NumbersOf<typeof baseFields>;

/** The outlines that numbers come to. */
export interface Forms {
  readonly outline: Form;
  readonly pocket: Form | null;
  /** What the plate is let into; null without a plate. */
  readonly rebate: Form | null;
  /** Half of what is free between a plate and its rebate, and a thing and its pocket. */
  readonly side: number;
}

/** @param playMm how much wider a pocket is than what goes in. */
export function formsOf(numbers: BaseNumbers, playMm: number): Forms {
  const { outline, width, depth, corner, pocket, pocketWidth, pocketDepth, plate, plateWidth, plateDepth } = numbers;
  const side = playMm / 2;
  const opening = (isRound: boolean, wide: number, deep: number): Form =>
    isRound
      ? { kind: 'round', radius: wide / 2 + side }
      : { kind: 'rectangle', halfX: wide / 2 + side, halfY: deep / 2 + side, corner: 0 };
  return {
    outline:
      outline === 'round'
        ? { kind: 'round', radius: width / 2 }
        : { kind: 'rectangle', halfX: width / 2, halfY: depth / 2, corner },
    pocket: pocket === 'none' ? null : opening(pocket === 'round', pocketWidth, pocketDepth),
    rebate: plate ? opening(pocket === 'round', plateWidth, plateDepth) : null,
    side,
  };
}

/** Where pins go: at the corners, or as far from a round edge on its diagonals. */
export function pinsOf({ pinInset }: BaseNumbers, outline: Form): (readonly [x: number, y: number])[] {
  const [x, y] =
    outline.kind === 'round'
      ? [0, 0].map(() => (outline.radius - pinInset) * Math.SQRT1_2)
      : [outline.halfX - pinInset, outline.halfY - pinInset];
  return [
    [x, y],
    [-x, y],
    [-x, -y],
    [x, -y],
  ];
}
