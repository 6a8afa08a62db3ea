import { type ColourKey, operationColourKey, type Rule, standardLayers } from './key.ts';

/** A key to begin with, and what drawings it is for. */
export interface StartingKey {
  readonly about: string;
  readonly key: ColourKey;
}

const byWidth = (layerId: string, minWidthMm: number | null, maxWidthMm: number | null): Rule => ({
  part: 'stroke',
  colour: null,
  tolerance: 0,
  minWidthMm,
  maxWidthMm,
  layerId,
});

/** Keys that a shop can begin with; each can be changed, and a shop may have several. */
export const startingKeys: readonly StartingKey[] = [
  {
    about: 'Each operation has a stroke colour and a fill of its own. For those who draw for the laser.',
    key: operationColourKey('house', 'A colour for each operation'),
  },
  {
    about: 'Hairlines are cut, thin lines scored, everything wider and every fill engraved. For drawings in one pen.',
    key: {
      id: 'house',
      name: 'By line width',
      hairlineMm: 0.5,
      layers: standardLayers(),
      rules: [
        byWidth('cut', null, 0.1),
        byWidth('score', 0.1, 0.5),
        byWidth('engrave', 0.5, null),
        { ...byWidth('engrave', null, null), part: 'fill' },
      ],
    },
  },
  {
    about: 'Every line is cut and every fill engraved, whatever its colour. For outlines from elsewhere.',
    key: {
      id: 'house',
      name: 'Lines cut, fills engrave',
      layers: standardLayers(),
      rules: [byWidth('cut', null, null), { ...byWidth('engrave', null, null), part: 'fill' }],
    },
  },
];
