import { type Machine, wattsOf } from '../../machine/machine.ts';
import {
  burnsPictures,
  burntOperations,
  engravesAreas,
  fillsAreas,
  type Operation,
  separates,
} from '../../operations/operations.ts';
import type { LayerSettings } from '../../settings/settings.ts';
import { type Material, thicknessOf } from '../book/material.ts';
import { type Recipe, settingsInRecipe } from '../book/recipe.ts';
import type { Shop } from '../book/shop.ts';
import { energyPerMm } from './energy.ts';
import { type EnergySample, type Expectation, expectEnergy } from './energy-fit.ts';

/** Settings that nobody has burnt yet, calculated from what was. */
export interface WorkedOut {
  readonly settings: Pick<LayerSettings, 'powerPercent' | 'speedMmPerS' | 'passes' | 'lineSpacingMm'> &
    Partial<LayerSettings>;
  /** Between which speeds the right one is, with 95 in 100, in mm/s. */
  readonly doubt: { readonly least: number; readonly most: number };
  /** The burns it rests on. */
  readonly from: readonly Burn[];
}

/** A recipe, and what it is for. */
export interface Burn {
  readonly material: Material;
  readonly machine: Machine;
  readonly recipe: Recipe;
}

/** What is asked for. */
export interface WorkOutWish {
  readonly material: Material;
  /** As it was measured, or as the material is said to be. */
  readonly thicknessMm: number;
  readonly machine: Machine;
  readonly operation: Operation;
}

/** A cut takes energy a little more than in proportion to the thickness, and much the same whatever the beam's power. */
const byThickness: Expectation = { exponent: 1.1, sigma: 0.3 };
const byPower: Expectation = { exponent: 0, sigma: 0.2 };
/** What another machine needs is less sure than what this one does, and another material of the family still less. */
const elsewhere = 4;
const relative = 9;
/** Nothing is worked out for stock more than this many times as thick, or as thin, as any that was cut. */
const farthest = 2;
/** A head that creeps chars: slower than this, in mm/s, it goes round more often. */
const slowest = 2;
const mostPasses = 12;

/**
 * Works settings out from the proven burns of the material and its family: cuts by the energy per length against
 * thickness and power, scores by energy per length, engravings by energy per area; on other machines by the power of
 * their beams.
 *
 * @returns null where there is nothing to go by
 */
export function workOut(
  { materials, machines }: Pick<Shop, 'materials' | 'machines'>,
  { material, thicknessMm, machine, operation }: WorkOutWish,
): WorkedOut | null {
  if (material.forbidden || !(thicknessMm > 0)) return null;
  const provenFor = (wanted: Operation) =>
    relatedBurns({ materials, machines }, material, wanted).filter(({ recipe }) => recipe.evidence === 'proven');
  const own = provenFor(operation);
  // The black of a photo takes what an engraving takes.
  const burns =
    own.length === 0 && burnsPictures(operation) ? burntOperations.filter(engravesAreas).flatMap(provenFor) : own;
  const isCut = separates(operation);
  const near = isCut ? burns.filter((burn) => ratio(thicknessOf(burn.material), thicknessMm) <= farthest) : burns;
  const nearest = near.toSorted((a, b) => distance(a) - distance(b))[0];
  if (!nearest) return null;

  function distance(burn: Burn): number {
    const far = isCut ? Math.log(ratio(thicknessOf(burn.material), thicknessMm)) : 0;
    return far + (burn.machine === machine ? 0 : 1) + (burn.material.name === material.name ? 0 : 2);
  }

  const expectations = isCut ? [byThickness, byPower] : [byPower];
  const logsOf = (thickness: number, beam: number) =>
    isCut ? [Math.log(thickness), Math.log(beam)] : [Math.log(beam)];
  const samples = burns.map((burn): EnergySample => {
    const beam = beamWatts(burn.machine, burn.recipe.powerPercent);
    return {
      logs: logsOf(thicknessOf(burn.material), beam),
      logEnergy: Math.log(energyPerMm(burn.recipe, wattsOf(burn.machine))),
      variance: (burn.machine === machine ? 1 : elsewhere) * (burn.material.name === material.name ? 1 : relative),
    };
  });

  const most = machine.mostPower ?? 100;
  const least = Math.max(1, machine.leastPower ?? 1);
  const asThere = (beamWatts(nearest.machine, nearest.recipe.powerPercent) / wattsOf(machine)) * 100;
  let powerPercent = Math.min(
    most,
    Math.max(least, nearest.machine === machine ? nearest.recipe.powerPercent : Math.round(asThere)),
  );
  const top = Math.min(machine.topSpeed, machine.topSpeeds?.[operation] ?? machine.topSpeed);
  let passes = isCut ? nearest.recipe.passes : 1;
  const { lineSpacingMm } = nearest.recipe;
  for (let round = 0; round < 8; round++) {
    const beam = beamWatts(machine, powerPercent);
    const energy = expectEnergy(samples, expectations, logsOf(thicknessMm, beam));
    if (!energy) return null;
    const speedAt = (log: number) => speedFor(operation, beam, Math.exp(log), passes, lineSpacingMm);
    const speed = speedAt(energy.mean);
    if (speed > top && powerPercent > least) {
      powerPercent = Math.max(least, Math.floor((powerPercent * top) / speed));
      continue;
    }
    if (isCut && speed < slowest && passes < mostPasses) {
      passes++;
      continue;
    }
    // Focus, air and waiting are the machine's own.
    const alike = nearest.machine === machine ? settingsInRecipe(nearest.recipe) : {};
    const limited = Math.min(top, rounded(speed));
    return {
      settings: { ...alike, kerfMm: undefined, powerPercent, speedMmPerS: limited, passes, lineSpacingMm },
      doubt: { least: rounded(speedAt(energy.most)), most: rounded(speedAt(energy.least)) },
      from: burns.toSorted((a, b) => distance(a) - distance(b)),
    };
  }
  return null;
}

/** The recipes for an operation of a material and its family, on machines of which the power is known. */
export function relatedBurns(
  { materials, machines }: Pick<Shop, 'materials' | 'machines'>,
  material: Material,
  operation: Operation,
): Burn[] {
  return materials
    .filter((entry) => entry === material || (!entry.archived && isRelated(entry, material)))
    .flatMap((stock) =>
      stock.recipes.flatMap((recipe): Burn[] => {
        const on = machines.find(({ id }) => id === recipe.machineId);
        const fits = recipe.operation === operation && !recipe.archived;
        return fits && on ? [{ material: stock, machine: on, recipe }] : [];
      }),
    );
}

/** Materials of one kind, whatever their thickness, or of one family. */
function isRelated(material: Material, other: Material): boolean {
  return material.name === other.name || (material.family !== undefined && material.family === other.family);
}

function ratio(a: number, b: number): number {
  return Math.max(a, b) / Math.min(a, b);
}

function beamWatts(machine: Machine, powerPercent: number): number {
  return (wattsOf(machine) * powerPercent) / 100;
}

function speedFor(operation: Operation, beam: number, energy: number, passes: number, lineSpacingMm: number): number {
  return (beam * passes) / energy / (fillsAreas(operation) ? lineSpacingMm : 1);
}

/** To three figures: more would claim what nobody knows. */
function rounded(speed: number): number {
  return Number(speed.toPrecision(3));
}
