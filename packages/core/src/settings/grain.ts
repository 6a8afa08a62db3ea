/** How greys are made of burnt dots, by its name in documents, with what it is called on the screen. */
export const grainWords = {
  diffused: 'Diffused',
  'blue-noise': 'Blue noise',
  dots: 'Dot screen',
  lines: 'Line screen',
  threshold: 'Threshold',
  'true-greys': 'True greys',
} as const;
/** By what method each is made. */
export const grainMethods: Readonly<Record<Grain, string>> = {
  diffused: 'Error diffusion: what a dot burns too much or too little is left to its neighbours',
  'blue-noise': 'Blue noise: thresholds by the void-and-cluster method',
  dots: 'Dots in rows at an angle, larger where it is darker',
  lines: 'Lines at an angle, wider where it is darker',
  threshold: 'What is darker than half burns, and nothing else',
  'true-greys': 'The power of the beam follows the grey',
};
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
