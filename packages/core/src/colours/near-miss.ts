import type { Colour } from '../document/item.ts';
import type { Layer } from '../document/layer.ts';
import { fillsAreas, isBurnt } from '../operations/operations.ts';
import type { PaintUse } from './derive.ts';
import { type ColourKey, colourDistance, type Mark, type Rule, ruleFits } from './key.ts';

/** How two colours come to be nearly the same. */
export type NearMissKind =
  /** A little outside the tolerance of a rule. */
  | 'near'
  /** As a rule's colour comes back from print colours. */
  | 'converted'
  /** Close to another paint of the drawing, which means something else. */
  | 'alike';

/** A paint that is nearly one that means something. */
export interface NearMiss {
  readonly paint: PaintUse;
  readonly kind: NearMissKind;
  /** The colour it is taken to be meant as. */
  readonly meant: Colour;
  /** The layer of that colour. */
  readonly layerId: string;
  /** The rule that has the colour, by its place in the key; null where it is another paint's. */
  readonly rule: number | null;
  /** How far off it is, as CIEDE2000. */
  readonly distance: number;
}

/** Beyond this two colours are not near each other, whatever the rule's tolerance. */
const furthest = 12;
/** How near to its print a colour must be to have come from it. */
const printed = 7;
/** Two paints nearer than this look the same to most. */
const alike = 4;

/**
 * Finds paints that are nearly something. They are near to the colour of a rule that does not take them, or like one
 * after it went through print colours. Or they can hardly be told from another paint that means something else. One
 * answer a paint, the nearest; paints that the job has settled itself are left alone.
 */
export function nearMisses(paints: readonly PaintUse[], key: ColourKey): NearMiss[] {
  return paints.flatMap((paint): NearMiss[] => {
    if (paint.byJob) return [];
    const found =
      paint.layerId === null ? (nearestRule(paint, key) ?? convertedFrom(paint, key)) : likeAnother(paint, paints);
    return found ? [found] : [];
  });
}

/** How treating a paint as meant would change what it is. */
export type KindChange =
  /** Its lines would be filled. */
  | 'line-to-area'
  /** What it fills would be a line, or nothing. */
  | 'area-to-line'
  /** It would burn, and does not now though it has a meaning. */
  | 'would-burn';

/** What treating a paint as meant would change beyond its colour; null where it stays what it is. */
export function kindChangeOf({ paint, layerId }: NearMiss, layers: readonly Layer[]): KindChange | null {
  const operationOn = (id: string | null) => layers.find((layer) => layer.id === id)?.operation;
  const [from, to] = [operationOn(paint.layerId), operationOn(layerId)];
  if (!to) return null;
  if (paint.part === 'stroke' && fillsAreas(to)) return 'line-to-area';
  if (paint.part === 'fill' && !fillsAreas(to)) return 'area-to-line';
  return from && !isBurnt(from) && isBurnt(to) ? 'would-burn' : null;
}

/** The rules of a paint's half and width that name a colour. */
function rulesFor(key: ColourKey, { part, widthMm }: Mark): { rule: Rule; colour: Colour; place: number }[] {
  return key.rules.flatMap((rule, place) => {
    if (rule.colour === null) return [];
    // With the colour itself, only width and half decide.
    return ruleFits(rule, { part, widthMm, colour: rule.colour }) ? [{ rule, colour: rule.colour, place }] : [];
  });
}

function nearestRule(paint: PaintUse, key: ColourKey): NearMiss | null {
  return nearest(
    rulesFor(key, paint).map(({ rule, colour, place }) => ({
      paint,
      kind: 'near',
      meant: colour,
      layerId: rule.layerId,
      rule: place,
      distance: colourDistance(colour, paint.colour),
    })),
    furthest,
  );
}

function convertedFrom(paint: PaintUse, key: ColourKey): NearMiss | null {
  const candidates = rulesFor(key, paint).map(({ rule, colour, place }) => ({
    offPrint: colourDistance(inPrint(colour), paint.colour),
    miss: {
      paint,
      kind: 'converted' as const,
      meant: colour,
      layerId: rule.layerId,
      rule: place,
      distance: colourDistance(colour, paint.colour),
    },
  }));
  const best = candidates.reduce<(typeof candidates)[number] | null>(
    (least, candidate) => (!least || candidate.offPrint < least.offPrint ? candidate : least),
    null,
  );
  return best && best.offPrint <= printed ? best.miss : null;
}

/** Another paint of the same half that means something else and looks the same; of the two, the one with fewer items. */
function likeAnother(paint: PaintUse, paints: readonly PaintUse[]): NearMiss | null {
  const others = paints.filter(
    (other) =>
      other !== paint &&
      other.part === paint.part &&
      other.colour !== paint.colour &&
      other.layerId !== null &&
      other.layerId !== paint.layerId &&
      other.itemIds.length >= paint.itemIds.length,
  );
  return nearest(
    others.map((other) => ({
      paint,
      kind: 'alike',
      meant: other.colour,
      layerId: other.layerId as string,
      rule: null,
      distance: colourDistance(other.colour, paint.colour),
    })),
    alike,
  );
}

function nearest(misses: readonly NearMiss[], within: number): NearMiss | null {
  const best = misses.reduce<NearMiss | null>(
    (least, miss) => (!least || miss.distance < least.distance ? miss : least),
    null,
  );
  return best && best.distance <= within ? best : null;
}

/** The solid overprints of process inks on white, as they look on a screen: by which of cyan, magenta and yellow print. */
const inks: readonly Colour[] = [
  '#FFFFFF',
  '#00AEEF',
  '#EC008C',
  '#2E3192',
  '#FFF200',
  '#00A651',
  '#ED1C24',
  '#231F20',
];

/**
 * What a screen colour looks like after it went through print: its complement as amounts of cyan, magenta and yellow,
 * mixed over the overprints of these (Neugebauer's equations, with Demichel's weights).
 */
export function inPrint(colour: Colour): Colour {
  const amounts = channels(colour).map((value) => 1 - value / 255);
  const mixed = [0, 0, 0];
  inks.forEach((ink, which) => {
    const weight = amounts.reduce((product, amount, i) => product * (which & (1 << i) ? amount : 1 - amount), 1);
    channels(ink).forEach((value, i) => {
      mixed[i] += weight * value;
    });
  });
  return `#${mixed.map((value) => Math.round(value).toString(16).padStart(2, '0')).join('')}`.toUpperCase();
}

function channels(colour: Colour): number[] {
  return [1, 3, 5].map((offset) => Number.parseInt(colour.slice(offset, offset + 2), 16));
}
