import type { ColourKey } from '../colours/key.ts';
import type { Sheet } from '../document/sheet.ts';
import type { FitName } from '../document/ties.ts';
import type { Machine } from '../machine/machine.ts';
import type { Operation } from '../operations/operation.ts';
import { allSettings, type LayerSettings } from '../settings/settings.ts';
import type { Figure, FigureSource } from './figures.ts';
import type { Pricing } from './pricing.ts';
import type { StockedSheet } from './stock.ts';

/** How well a recipe is known: burnt and judged, copied from elsewhere, or calculated. */
export type Evidence = 'proven' | 'copied' | 'worked out';

/** Who vouches for a recipe, since when, and what they go by: the burn they judged, what they copied, how they reckoned. */
export interface Proof {
  readonly by: string;
  /** A date such as 2026-11-26. */
  readonly on: string;
  readonly what: string;
  /** The job that was burnt for it, where there is one. */
  readonly jobId?: string;
}

/**
 * A set of settings for one operation of one machine on one material; what it does not say is as usual
 * (`usualSettings`).
 */
export interface Recipe extends Partial<Omit<LayerSettings, 'kerfMm'>> {
  /** By which the book knows it, and how often it was changed; a shop's file needs neither. */
  readonly id?: number;
  readonly version?: number;
  readonly machineId: string;
  /** The lens it is for; any where nothing is said. */
  readonly lensId?: string | null;
  readonly operation: Operation;
  /** Which of several for one operation it is, such as `masked` or `deep`; the usual one where nothing is said. */
  readonly variant?: string;
  readonly powerPercent: number;
  readonly speedMmPerS: number;
  readonly passes: number;
  readonly lineSpacingMm: number;
  /** The width of the burn as it was measured, in mm; null where it was not. */
  readonly kerfMm?: number | null;
  /** Who measured that, and when. */
  readonly kerfFrom?: FigureSource | null;
  readonly evidence: Evidence;
  readonly proof?: Proof | null;
  readonly note: string;
  /** A picture of what comes of it, under which it is kept among the pictures. */
  readonly pictureId?: string;
  /** Kept, but not used any more. */
  readonly archived?: boolean;
}

/** The settings that a recipe says. */
export function settingsInRecipe(recipe: Recipe): Partial<LayerSettings> {
  return Object.fromEntries(
    [...allSettings().keys()].flatMap((name) => {
      const value = recipe[name];
      return value === undefined || (name === 'kerfMm' && value === null) ? [] : [[name, value]];
    }),
  );
}

export interface Material {
  readonly id: string;
  /** What kind of stuff it is, such as `Plywood`: settings that nobody has burnt are worked out within it. */
  readonly family?: string;
  readonly name: string;
  readonly thicknessMm: number;
  /** As the shop measured it, in mm. */
  readonly measuredMm?: number | null;
  readonly colour?: string;
  readonly finish?: string;
  /** Whether a film covers it. */
  readonly masked?: boolean;
  readonly notes?: string;
  /** Kept, but not offered any more. */
  readonly archived?: boolean;
  /** How often it was changed. */
  readonly version?: number;
  /** The tone a sheet of it is drawn in. */
  readonly tone: string;
  readonly sheetWidth: number;
  readonly sheetHeight: number;
  /** The sheets of it that the shop has. */
  readonly stock?: readonly StockedSheet[];
  /** Why it must never be lasered; null when it may. */
  readonly forbidden: string | null;
  readonly recipes: readonly Recipe[];
  /** How much wider than a thing its pocket is, by fit, where that was learnt. */
  readonly fits?: Readonly<Partial<Record<FitName, Figure>>>;
}

/** How thick a material is, in mm: as the shop measured it, else as it is sold. */
export function thicknessOf({ measuredMm, thicknessMm }: Pick<Material, 'measuredMm' | 'thicknessMm'>): number {
  return measuredMm ?? thicknessMm;
}

/** What a shop has: the default machine, key and material are the first of each. */
export interface Shop {
  readonly name: string;
  readonly machines: readonly Machine[];
  readonly keys: readonly ColourKey[];
  readonly materials: readonly Material[];
  /** What it charges; nothing where nothing is said. */
  readonly pricing?: Pricing;
}

/**
 * A sheet of a material as it comes, laid at the machine's zero corner and cut to what the bed holds: the one in stock
 * that is named, else the first whole one that there is, else one of the usual size.
 */
export function sheetAsStocked(id: string, material: Material, machine: Machine, stockId?: string): Sheet {
  const known = material.stock ?? [];
  const taken =
    known.find((one) => one.id === stockId) ?? known.find(({ count, offcut }) => count > 0 && !offcut) ?? null;
  const width = Math.min(taken?.width ?? material.sheetWidth, machine.bedWidth);
  const height = Math.min(taken?.height ?? material.sheetHeight, machine.bedHeight);
  const y = machine.origin === 'bottom-left' ? machine.bedHeight - height : 0;
  const centred = machine.origin === 'centre';
  return {
    id,
    materialId: material.id,
    x: centred ? (machine.bedWidth - width) / 2 : 0,
    y: centred ? (machine.bedHeight - height) / 2 : y,
    width,
    height,
    margin: 3,
    ...(taken ? { stockId: taken.id } : {}),
  };
}
