/** How greys are made of burnt dots, by its name in documents, with what it is called on the screen. */
export const grainWords = {
  diffused: 'Diffused',
  'blue-noise': 'Blue noise',
  dots: 'Dot screen',
  lines: 'Line screen',
  threshold: 'Threshold',
  'true-greys': 'True greys',
} as const;
export type Grain = keyof typeof grainWords;
export const grains = Object.keys(grainWords) as readonly Grain[];

/** How far the error of a diffused grain goes. */
export const diffusionWords = {
  near: 'to the nearest',
  wide: 'far',
  widest: 'furthest',
} as const;
export type Diffusion = keyof typeof diffusionWords;
export const diffusions = Object.keys(diffusionWords) as readonly Diffusion[];
