import { orNull } from '../schema/schema.ts';
import { fromTo, number, oneOf, whole } from '../schema/values.ts';
import { brought, isWithin, widestSpacing } from './bounds.ts';
import { type BurntGrey, burntGreysColumn, burntGreysSchema } from './burnt-greys.ts';
import { type Diffusion, diffusions, diffusionWords, type Grain, grains, grainWords } from './grain.ts';
import { figureColumn, type Setting, wordColumn } from './setting.ts';

/*
 * The settings of what burns the greys of pictures.
 */

/** Finer screens have less than two scan lines to a line. */
const mostScreenLines = 200;
/** Powers of a picture are told apart in so many steps at most. */
const mostGreyLevels = 256;
/** No controller keeps up with shorter dots, in mm. */
const leastDot = 0.005;

export const toneSettings = {
  /** The power that the lightest greys burn with, in per cent of the machine's; only true greys go below the most. */
  leastPowerPercent: {
    concerns: 'tones',
    words: 'least power',
    label: 'Least power',
    unit: '%',
    usual: 0,
    schema: number(0, 1000),
    inRecipes: fromTo(0, 100),
    column: figureColumn('least power %'),
    field: { kind: 'figure', step: 1 },
    isFiner: true,
    beyond: (value, { settings: { powerPercent } }) =>
      isWithin(value, 0, Number.isFinite(powerPercent) ? powerPercent : 100)
        ? null
        : `Least power is ${value} %; it is from 0 to the ${powerPercent} % of black.`,
    within: (value, { settings: { powerPercent } }) =>
      brought(value, 0, Number.isFinite(powerPercent) ? powerPercent : 100),
  } satisfies Setting<number>,

  /** How greys are made of burnt dots. */
  grain: {
    concerns: 'tones',
    words: 'grain',
    label: 'Grain',
    unit: '',
    usual: 'diffused',
    schema: oneOf(grains),
    column: wordColumn('grain', grains),
    field: { kind: 'word', words: grainWords },
    isFiner: true,
    onStrip: (value) => grainWords[value].toLowerCase(),
  } satisfies Setting<Grain>,

  /** How far the error of a diffused grain goes. */
  diffusion: {
    concerns: 'tones',
    words: 'diffusion',
    label: 'Errors go',
    unit: '',
    usual: 'near',
    schema: oneOf(diffusions),
    column: wordColumn('diffusion', diffusions),
    field: { kind: 'word', words: diffusionWords },
    isFiner: true,
  } satisfies Setting<Diffusion>,

  /** How many dots or lines of a screen lie on a centimetre. */
  screenPerCm: {
    concerns: 'tones',
    words: 'screen lines',
    label: 'Screen lines',
    unit: 'per cm',
    usual: 15,
    schema: number(0, 1000),
    inRecipes: fromTo(1, mostScreenLines),
    column: figureColumn('screen per cm'),
    field: { kind: 'figure', step: 1 },
    isFiner: true,
    beyond: (value) =>
      isWithin(value, 1, mostScreenLines)
        ? null
        : `A screen has ${value} lines per cm; it has from 1 to ${mostScreenLines}.`,
    within: (value) => brought(value, 1, mostScreenLines),
  } satisfies Setting<number>,

  /** Which way the lines of a screen run, in degrees clockwise from the scan lines. */
  screenAngle: {
    concerns: 'tones',
    words: 'screen angle',
    label: 'Screen turned',
    unit: '°',
    usual: 45,
    schema: number(-3600, 3600),
    column: figureColumn('screen angle'),
    field: { kind: 'figure', step: 5 },
    isFiner: true,
  } satisfies Setting<number>,

  /** How many levels true greys have, nothing and black among them. */
  greyLevels: {
    concerns: 'tones',
    words: 'grey levels',
    label: 'Grey levels',
    unit: '',
    usual: mostGreyLevels,
    schema: number(0, 1000),
    inRecipes: whole(fromTo(2, mostGreyLevels)),
    column: figureColumn('grey levels'),
    field: { kind: 'figure', step: 1 },
    isFiner: true,
    beyond: (value) =>
      Number.isInteger(value) && isWithin(value, 2, mostGreyLevels)
        ? null
        : `Grey levels are ${value}; they are a whole number from 2 to ${mostGreyLevels}.`,
    within: (value) => Math.round(brought(value, 2, mostGreyLevels)),
  } satisfies Setting<number>,

  /** How wide a dot of a picture is along its line, in mm; null for as wide as lines are apart. */
  dotMm: {
    concerns: 'tones',
    words: 'dot width',
    label: 'Dots (0 as lines)',
    unit: 'mm',
    usual: null,
    schema: orNull(number()),
    column: figureColumn('dot mm') as Setting<number | null>['column'],
    field: { kind: 'figure or found', step: 0.01 },
    isFiner: true,
    beyond: (value) =>
      value === null || isWithin(value, leastDot, widestSpacing)
        ? null
        : `Dots are ${value} mm wide; they are from ${leastDot} to ${widestSpacing} mm.`,
    within: (value) => (value === null ? null : brought(value, leastDot, widestSpacing)),
  } satisfies Setting<number | null>,

  /** How dark greys came out, as a card of grey steps showed; greys burn as they are where none were measured. */
  burntGreys: {
    concerns: 'tones',
    words: 'measured greys',
    label: 'Measured greys',
    unit: '',
    usual: [],
    schema: burntGreysSchema,
    column: burntGreysColumn,
    field: { kind: 'own' },
    isFiner: true,
  } satisfies Setting<readonly BurntGrey[]>,
};
