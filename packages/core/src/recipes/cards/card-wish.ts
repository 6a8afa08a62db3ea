import type { CardAxis, CardSetting, CardWish } from '../../document/card.ts';
import { type Machine, topSpeedOf, wattsOf } from '../../machine/machine.ts';
import {
  type BurntOperation,
  burnsPictures,
  fillsAreas,
  labelOperation,
  operationOf,
  separates,
} from '../../operations/operations.ts';
import { type LayerSettings, settingsOf, usualSettings } from '../../settings/settings.ts';
import { thicknessOf } from '../book/material.ts';
import type { Shop } from '../book/shop.ts';
import { basisFor, type Stock } from '../in-force/apply.ts';
import { energyPerMm } from '../in-force/energy.ts';

/*
 * Which test card to begin with: ranges around what the book knows, or wide ones where it knows nothing.
 */

/** A kind of card: what differs across, and what down. */
interface CardKind {
  readonly id: string;
  readonly name: string;
  readonly across: CardSetting;
  readonly down: CardSetting;
}

const kinds: readonly CardKind[] = [
  { id: 'power-speed', name: 'Power and speed', across: 'speedMmPerS', down: 'powerPercent' },
  { id: 'lines', name: 'Line spacing', across: 'lineSpacingMm', down: 'powerPercent' },
  { id: 'greys', name: 'Grey steps, for photos', across: 'greyPercent', down: 'speedMmPerS' },
  { id: 'passes', name: 'Passes', across: 'speedMmPerS', down: 'passes' },
  { id: 'focus', name: 'Focus', across: 'focusMm', down: 'speedMmPerS' },
];

/** The kinds of card for an operation: those of which it has the settings; the first is the usual one. */
export function cardKinds(operation: BurntOperation): readonly CardKind[] {
  const own = new Set<string>(settingsOf(operation));
  if (burnsPictures(operation)) own.add('greyPercent');
  return kinds.filter(({ across, down }) => own.has(across) && own.has(down));
}

/** What ranges rest on. */
export type CardGround = 'recipe' | 'worked out' | 'nothing';

/** Power and speed to try around, and how far from them on each side, as factors. */
interface Around {
  readonly ground: CardGround;
  readonly settings: LayerSettings;
  readonly slower: number;
  readonly faster: number;
}

function aroundWhat(
  book: Pick<Shop, 'machines' | 'materials'>,
  stock: Stock,
  machine: Machine,
  operation: BurntOperation,
): Around {
  const basis = basisFor(book, stock, machine, operation);
  const { powerPercent, speedMmPerS } = basis?.settings ?? {};
  if (basis && powerPercent !== undefined && speedMmPerS !== undefined) {
    const settings = { ...usualSettings(), ...basis.settings, powerPercent, speedMmPerS };
    if (basis.source.kind === 'recipe') return { ground: 'recipe', settings, slower: 0.6, faster: 1.6 };
    const { least, most } = basis.source.doubt;
    return { ground: 'worked out', settings, slower: (least / speedMmPerS) * 0.9, faster: (most / speedMmPerS) * 1.1 };
  }
  const watts = wattsOf(machine);
  const thick = stock.thicknessMm ?? (stock.material ? thicknessOf(stock.material) : 3);
  const power = separates(operation) ? 60 : 20;
  const first = operationOf(operation).burning?.firstEnergy ?? 0;
  const along = fillsAreas(operation) ? first * usualSettings().lineSpacingMm : first;
  const energy = separates(operation) ? along * thick ** 1.1 : along;
  const settings = { ...usualSettings(), powerPercent: power, speedMmPerS: ((power / 100) * watts) / energy };
  return { ground: 'nothing', settings, slower: 1 / 2.5, faster: 2 };
}

/**
 * A card of a kind for some stock on a machine, within what the machine can do: around the book's recipe, wider around
 * what is worked out, widest where nothing is known. Its words are scored as mildly as the book knows.
 */
export function cardWish(
  book: Pick<Shop, 'machines' | 'materials'>,
  stock: Stock,
  machine: Machine,
  operation: BurntOperation,
  kindId: string,
): { wish: CardWish; ground: CardGround } {
  const own = cardKinds(operation);
  const kind = own.find(({ id }) => id === kindId) ?? own[0];
  const { ground, settings: around, slower, faster } = aroundWhat(book, stock, machine, operation);
  const top = topSpeedOf(machine, operation);
  const settings = { ...around, speedMmPerS: Math.min(top, around.speedMmPerS) };
  const [least, most] = [Math.max(machine.leastPower ?? 1, 1), machine.mostPower ?? 100];
  const speed = (factor: number) => round(Math.min(top, Math.max(0.5, settings.speedMmPerS * factor)));
  const power = (factor: number) => round(Math.min(most, Math.max(least, settings.powerPercent * factor)));
  const between = (low: number, high: number) => Math.min(machine.focus?.highest ?? 0, Math.max(low, high));
  const axes: Record<CardSetting, Omit<CardAxis, 'setting'>> = {
    powerPercent: { from: power(0.7), to: power(1.3), steps: 4 },
    speedMmPerS: { from: speed(slower), to: speed(faster), steps: kind.across === 'speedMmPerS' ? 6 : 3 },
    passes: { from: 1, to: 4, steps: 4 },
    focusMm: { from: between(machine.focus?.lowest ?? 0, -3), to: between(0, 2), steps: 6 },
    lineSpacingMm: { from: round(Math.max(machine.minLineSpacing, 0.05)), to: 0.3, steps: 6 },
    greyPercent: { from: 10, to: 100, steps: 10 },
  };
  const varied = new Set<string>([kind.across, kind.down]);
  const rest = Object.fromEntries(
    settingsOf(operation).flatMap((name) => (varied.has(name) ? [] : [[name, settings[name]]])),
  ) as Partial<LayerSettings>;
  return {
    ground,
    wish: {
      operation,
      across: { setting: kind.across, ...axes[kind.across] },
      down: { setting: kind.down, ...axes[kind.down] },
      // Cells are drawn as they are to burn: nothing is allowed for the beam, and no grey is corrected.
      rest: {
        ...rest,
        ...(separates(operation) ? { kerfMm: 0 } : {}),
        ...(burnsPictures(operation) ? { burntGreys: [] } : {}),
      },
      words: safeWords(book, stock, machine),
      cellMm: fillsAreas(operation) ? 8 : 10,
      gapMm: 2,
    },
  };
}

/**
 * What a card's words are scored with: what the stock's own recipe says. Else the mildest score that the shop has proven
 * on the machine, or else hardly more than the beam's least power.
 */
export function safeWords(
  { materials }: Pick<Shop, 'materials'>,
  { material }: Stock,
  machine: Machine,
): CardWish['words'] {
  const scores = (among: Shop['materials']) =>
    among
      .flatMap(({ recipes, forbidden }) => (forbidden ? [] : recipes))
      .filter(
        ({ machineId, operation, evidence, archived }) =>
          machineId === machine.id && operation === labelOperation && evidence === 'proven' && !archived,
      )
      .toSorted((a, b) => energyPerMm(a, 1) - energyPerMm(b, 1))[0];
  const found = scores(material ? [material] : []) ?? scores(materials);
  if (found) return { powerPercent: found.powerPercent, speedMmPerS: found.speedMmPerS };
  return {
    powerPercent: Math.min(100, (machine.leastPower ?? 4) + 4),
    speedMmPerS: Math.min(150, topSpeedOf(machine, labelOperation)),
  };
}

/** To two figures: what a person would have typed. */
function round(value: number): number {
  return Number(value.toPrecision(2));
}
