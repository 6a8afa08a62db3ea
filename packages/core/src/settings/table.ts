import { languageOf, topSpeedOf } from '../machine/machine.ts';
import { operationOf } from '../operations/operations.ts';
import { Mismatch, orNull } from '../schema/schema.ts';
import { flag, fromTo, number, oneOf, whole } from '../schema/values.ts';
import { brought, isWithin, widestSpacing } from './bounds.ts';
import { type Air, figureColumn, type Setting, type SettingContext } from './setting.ts';
import { toneSettings } from './tone-settings.ts';

/*
 * Every setting a layer can have. Documents, recipes, the book's table, limits, forms, history, the strip and
 * docs/settings.md read this table; a new setting is a new entry, and what burns by it.
 */

/** No laser that burns sheets takes away more, in mm. */
const widestKerf = 2;
/** No beam is left standing for longer, in seconds. */
const longestWait = 10;
const longestRunUp = 200;
/** More tabs on one outline hold nothing better. */
const mostTabs = 50;
/** A thinner tab than this burns away, and a wider one than that is an edge left uncut. In mm. */
const leastTab = 0.05;
const widestTab = 20;
const mostPasses = 50;
/** No head goes faster while it burns, in mm/s. */
const fastest = 10_000;

export const settingTable = {
  /** Power in per cent of the machine's. */
  powerPercent: {
    concerns: 'beam',
    words: 'power',
    label: 'Power',
    unit: '%',
    schema: number(0, 1000),
    inRecipes: fromTo(null, 100),
    isInEveryRecipe: true,
    column: figureColumn('power %'),
    field: { kind: 'own' },
    onCards: { counted: '%', least: 0.1, most: 100 },
    isFiner: false,
    onStrip: (value) => `${value} %`,
    beyond: (value, { machine }) => {
      const [least, most] = [machine.leastPower ?? 0, machine.mostPower ?? 100];
      if (isWithin(value, Math.max(least, Number.MIN_VALUE), most)) return null;
      const takes = least > 0 ? `from ${least} to ${most} %` : `more than 0 and up to ${most} %`;
      return `Power is ${value} %; ${machine.name} takes ${takes}.`;
    },
    within: (value, { machine }) => brought(value, machine.leastPower ?? 1, machine.mostPower ?? 100),
  } satisfies Setting<number>,

  /** Speed along the line, in mm/s. */
  speedMmPerS: {
    concerns: 'beam',
    words: 'speed',
    label: 'Speed',
    unit: 'mm/s',
    schema: number(0, 100_000),
    inRecipes: fromTo(null, fastest),
    isInEveryRecipe: true,
    column: figureColumn('speed mm/s'),
    field: { kind: 'own' },
    onCards: { counted: 'mm/s', least: 0.001, most: fastest },
    isFiner: false,
    beyond: (value, { machine, operation }) => {
      const top = topSpeedOf(machine, operation);
      if (isWithin(value, Number.MIN_VALUE, top)) return null;
      const does = (top < machine.topSpeed && operationOf(operation).burning?.verb) || 'burns';
      return `Speed is ${value} mm/s; ${machine.name} ${does} at more than 0 and up to ${top} mm/s.`;
    },
    within: (value, { machine, operation }) => brought(value, 1, topSpeedOf(machine, operation)),
  } satisfies Setting<number>,

  /** The width that the beam takes away, in mm. 0 burns along the line as it is drawn. */
  kerfMm: {
    concerns: 'through',
    words: 'kerf',
    label: 'Kerf',
    unit: 'mm',
    usual: 0,
    schema: number(0, 100),
    inRecipes: fromTo(0, widestKerf),
    column: figureColumn('kerf mm'),
    field: { kind: 'own' },
    isFiner: false,
    beyond: (value) =>
      isWithin(value, 0, widestKerf) ? null : `Kerf is ${value} mm; a beam takes away from 0 to ${widestKerf} mm.`,
    within: (value) => brought(value, 0, widestKerf),
  } satisfies Setting<number>,

  /** How many tabs hold each outline that is cut; where they were placed by hand, those do. */
  tabs: {
    concerns: 'through',
    words: 'tabs',
    label: 'Tabs per outline',
    unit: '',
    usual: 0,
    schema: number(0, 1000),
    inRecipes: whole(fromTo(0, mostTabs)),
    column: figureColumn('tabs'),
    field: { kind: 'figure', step: 1 },
    isFiner: true,
    onStrip: (value) => (value > 0 ? `${value} tabs` : null),
    beyond: (value) =>
      Number.isInteger(value) && isWithin(value, 0, mostTabs)
        ? null
        : `Tabs per outline are ${value}; they are a whole number from 0 to ${mostTabs}.`,
    within: (value) => Math.round(brought(value, 0, mostTabs)),
  } satisfies Setting<number>,

  /** How wide a tab is in the stock, in mm. */
  tabWidthMm: {
    concerns: 'through',
    words: 'tab width',
    label: 'Width of a tab',
    unit: 'mm',
    usual: 0.6,
    schema: number(0, 1000),
    inRecipes: fromTo(leastTab, widestTab),
    column: figureColumn('tab width mm'),
    field: { kind: 'figure', step: 0.1 },
    isFiner: true,
    beyond: (value) =>
      isWithin(value, leastTab, widestTab)
        ? null
        : `A tab is ${value} mm wide; it is from ${leastTab} to ${widestTab} mm.`,
    within: (value) => brought(value, leastTab, widestTab),
  } satisfies Setting<number>,

  /** Distance between scan lines, in mm. */
  lineSpacingMm: {
    concerns: 'areas',
    words: 'line spacing',
    label: 'Lines',
    unit: 'mm',
    usual: 0.1,
    schema: number(0, 1000),
    inRecipes: fromTo(0.001, 10),
    isInEveryRecipe: true,
    column: figureColumn('line spacing mm'),
    field: { kind: 'own' },
    onCards: { counted: 'mm lines', least: 0.01, most: widestSpacing },
    isFiner: false,
    onStrip: (value) => `${value.toFixed(2)} mm lines`,
    beyond: (value, { machine }) =>
      isWithin(value, machine.minLineSpacing, widestSpacing)
        ? null
        : `Line spacing is ${value} mm; ${machine.name} holds lines from ${machine.minLineSpacing} to ${widestSpacing} mm apart.`,
    within: (value, { machine }) => brought(value, machine.minLineSpacing, widestSpacing),
  } satisfies Setting<number>,

  /** How often the same is burnt. */
  passes: {
    concerns: 'beam',
    words: 'passes',
    label: 'Passes',
    unit: '',
    usual: 1,
    schema: number(0, 1000),
    inRecipes: whole(fromTo(1, mostPasses)),
    isInEveryRecipe: true,
    column: figureColumn('passes'),
    field: { kind: 'own' },
    onCards: { counted: 'passes', least: 1, most: mostPasses, isWhole: true },
    isFiner: false,
    onStrip: (value) => (value > 1 ? `${value} passes` : null),
    beyond: (value) =>
      Number.isInteger(value) && isWithin(value, 1, mostPasses)
        ? null
        : `Passes are ${value}; they are a whole number from 1 to ${mostPasses}.`,
    within: (value) => Math.round(brought(value, 1, mostPasses)),
  } satisfies Setting<number>,

  /** The least power the beam keeps to where the head slows down, in per cent; 0 lets it fall with the speed. */
  cornerPowerPercent: {
    concerns: 'lines',
    words: 'power at corners',
    label: 'Least at corners',
    unit: '%',
    usual: 0,
    schema: number(0, 1000),
    column: figureColumn('power at corners %'),
    field: { kind: 'figure', step: 1 },
    isFiner: true,
    beyond: (value, { machine, settings: { powerPercent } }) => {
      if (value > 0 && languageOf(machine) === 'plain')
        return `Power at corners is ${value} %; the language of ${machine.name} has no word for it.`;
      return isWithin(value, 0, Number.isFinite(powerPercent) ? powerPercent : 100)
        ? null
        : `Power at corners is ${value} %; it is from 0 to the ${powerPercent} % of the line.`;
    },
    within: (value, { machine, settings: { powerPercent } }) =>
      languageOf(machine) === 'plain' ? 0 : brought(value, 0, Number.isFinite(powerPercent) ? powerPercent : 100),
  } satisfies Setting<number>,

  /** How long the beam stands where a line starts, in seconds, to go through the stock. */
  pierceS: {
    concerns: 'lines',
    words: 'wait at starts',
    label: 'Wait at starts',
    unit: 's',
    usual: 0,
    schema: number(0, 3600),
    column: figureColumn('wait at starts s'),
    field: { kind: 'figure', step: 0.1 },
    isFiner: true,
    beyond: (value) => waitBeyond('At the start of a line', value),
    within: (value) => brought(value, 0, longestWait),
  } satisfies Setting<number>,

  /** How long the beam stands at each sharp corner, in seconds. */
  cornerWaitS: {
    concerns: 'lines',
    words: 'wait at corners',
    label: 'Wait at corners',
    unit: 's',
    usual: 0,
    schema: number(0, 3600),
    column: figureColumn('wait at corners s'),
    field: { kind: 'figure', step: 0.1 },
    isFiner: true,
    beyond: (value) => waitBeyond('At a corner', value),
    within: (value) => brought(value, 0, longestWait),
  } satisfies Setting<number>,

  ...toneSettings,

  /** Which way scan lines run, in degrees clockwise on the screen from left to right. */
  scanAngle: {
    concerns: 'areas',
    words: 'scan angle',
    label: 'Lines turned',
    unit: '°',
    usual: 0,
    schema: number(-3600, 3600),
    column: figureColumn('scan angle'),
    field: { kind: 'figure', step: 5 },
    isFiner: true,
    beyond: (value) =>
      isWithin(value, -360, 360) ? null : `Scan lines are turned ${value}°; they may be from -360° to 360°.`,
    within: (value) => (Number.isFinite(value) ? value % 360 : 0),
  } satisfies Setting<number>,

  /** Whether scan lines burn there and back. */
  bothWays: {
    concerns: 'areas',
    words: 'scan direction',
    label: 'Lines burn there and back',
    unit: '',
    usual: true,
    schema: flag,
    column: {
      name: 'both ways',
      write: (value) => (value ? 'yes' : 'no'),
      read: (cell) => {
        if (cell !== 'yes' && cell !== 'no') throw new Mismatch(`Both ways is yes or no, and not “${cell}”.`);
        return cell === 'yes';
      },
    },
    field: { kind: 'yes or no' },
    isFiner: true,
  } satisfies Setting<boolean>,

  /** How far the head runs unlit before and after a scan line, in mm; null for what it takes to come to speed. */
  runUpMm: {
    concerns: 'areas',
    words: 'run-up',
    label: 'Run-up (0 as needed)',
    unit: 'mm',
    usual: null,
    schema: orNull(number()),
    column: figureColumn('run-up mm') as Setting<number | null>['column'],
    field: { kind: 'figure or found', step: 1 },
    isFiner: true,
    beyond: (value) =>
      value === null || isWithin(value, 0, longestRunUp)
        ? null
        : `The run-up is ${value} mm; it is from 0 to ${longestRunUp} mm.`,
    within: (value) => (value === null ? null : brought(value, 0, longestRunUp)),
  } satisfies Setting<number | null>,

  /** How far above the surface of the stock the focus is, in mm; below 0 it is in the stock. */
  focusMm: {
    concerns: 'beam',
    words: 'focus',
    label: 'Focus above stock',
    unit: 'mm',
    usual: 0,
    schema: number(-1000, 1000),
    column: figureColumn('focus mm'),
    field: { kind: 'figure', step: 0.1 },
    onCards: { counted: 'mm focus', least: -100, most: 100 },
    isFiner: true,
    beyond: (value, context) => (isFocusIn(value, context) ? null : focusBeyond(context)),
    within: (value, { machine: { focus } }) => (focus ? brought(value, focus.lowest, focus.highest) : 0),
  } satisfies Setting<number>,

  /** How much deeper the focus goes with each pass after the first, in mm. */
  focusStepMm: {
    concerns: 'beam',
    words: 'focus step',
    label: 'Deeper each pass',
    unit: 'mm',
    usual: 0,
    schema: number(-1000, 1000),
    column: figureColumn('focus step mm'),
    field: { kind: 'figure', step: 0.1 },
    isFiner: true,
    beyond: (_, context) => (isFocusIn(context.settings.focusMm, context) ? focusBeyond(context) : null),
    // As deep as the focus goes with the last pass.
    within: (value, { machine: { focus }, settings: { focusMm, passes } }) => {
      if (!focus || passes < 2 || !Number.isFinite(value)) return 0;
      const step = brought(value, (focusMm - focus.highest) / (passes - 1), (focusMm - focus.lowest) / (passes - 1));
      return Math.trunc(step * 1000) / 1000;
    },
  } satisfies Setting<number>,

  /** What blows at the beam. */
  air: {
    concerns: 'beam',
    words: 'air',
    label: 'Air',
    unit: '',
    usual: 'off',
    schema: {
      read: (json) => (typeof json === 'number' ? number().read(json) : oneOf(['off', 'low', 'high']).read(json)),
    },
    column: {
      name: 'air',
      write: (value) => (typeof value === 'number' ? `${value} bar` : value),
      read: (cell) => {
        const bar = /^([\d.]+)\s*bar$/.exec(cell);
        if (bar) return Number(bar[1]);
        if (cell === 'off' || cell === 'low' || cell === 'high') return cell;
        throw new Mismatch(`Air is off, low, high or a pressure such as 0.8 bar, and not “${cell}”.`);
      },
    },
    field: { kind: 'air' },
    isFiner: true,
    beyond: (air, { machine: { name, air: has } }) => {
      if (air === 'off') return null;
      if (typeof air === 'number') {
        const most = has?.mostBar ?? null;
        if (most === null) return `Air is ${air} bar; ${name} cannot set a pressure.`;
        return air > 0 && air <= most ? null : `Air is ${air} bar; ${name} blows at more than 0 and up to ${most} bar.`;
      }
      if (has?.levels.includes(air)) return null;
      return `Air is ${air}; ${name} ${has && has.levels.length > 0 ? `has only ${has.levels.join(' and ')}` : 'cannot switch its air'}.`;
    },
    within: (air, { machine: { air: has } }) => {
      const most = has?.mostBar ?? null;
      if (typeof air === 'number' && most !== null) return brought(air, 0.1, most);
      return has?.levels[0] ?? 'off';
    },
  } satisfies Setting<Air>,
};

function waitBeyond(where: string, value: number): string | null {
  if (isWithin(value, 0, longestWait)) return null;
  return `${where} the beam stands ${value} s; it may for 0 to ${longestWait} s.`;
}

/** Whether the focus of the first pass is one that the machine reaches. */
function isFocusIn(focusMm: number, { machine: { focus } }: SettingContext): boolean {
  return focus ? isWithin(focusMm, focus.lowest, focus.highest) : focusMm === 0;
}

/** What is wrong with how deep the focus goes over all passes; null where nothing is. */
function focusBeyond({ machine: { name, focus }, settings: { focusMm, focusStepMm, passes } }: SettingContext) {
  const deepest = Math.round((focusMm - (passes - 1) * focusStepMm) * 1000) / 1000;
  const [lowest, highest] = [Math.min(focusMm, deepest), Math.max(focusMm, deepest)];
  if (!focus) {
    if (focusMm === 0 && deepest === 0) return null;
    return `The focus would go to ${lowest !== 0 ? lowest : highest} mm; that of ${name} is set by hand. Leave it at 0 mm.`;
  }
  if (lowest >= focus.lowest && highest <= focus.highest) return null;
  const goes = lowest === highest ? 'be at' : `go from ${lowest} to`;
  return `The focus would ${goes} ${highest} mm; that of ${name} reaches from ${focus.lowest} to ${focus.highest} mm above the stock.`;
}
