import { converter, differenceCiede2000, parse } from 'culori';
import type { Colour } from '../document/item.ts';
import type { PaintPart } from '../document/job.ts';
import type { Layer } from '../document/layer.ts';
import { operationColours, operationNames, operations } from '../operations/operation.ts';

export type { Layer } from '../document/layer.ts';

/** One line of a colour key: a paint, and the layer it goes on. */
export interface Rule {
  readonly part: PaintPart;
  /** Null stands for any colour. */
  readonly colour: Colour | null;
  /** How far off a colour may be, as CIEDE2000 over sRGB; 0 takes the very colour only. */
  readonly tolerance: number;
  /** Stroke widths the rule takes, in mm, both ends included; null for any. */
  readonly minWidthMm: number | null;
  readonly maxWidthMm: number | null;
  /** Greys it takes, by their lightness: 0 is black, 100 white, both ends included. Null for any colour at all. */
  readonly grey?: { readonly from: number; readonly to: number } | null;
  readonly layerId: string;
}

/** The list of rules that says which paints mean what. The first rule that fits a paint decides. */
export interface ColourKey {
  readonly id: string;
  readonly name: string;
  readonly layers: readonly Layer[];
  readonly rules: readonly Rule[];
  /** Strokes wider than this, in mm, are areas to engrave and not lines to follow; null where width does not say so. */
  readonly hairlineMm?: number | null;
}

/** The layers every job has, whatever its key. */
export const standardLayers: readonly Layer[] = operations.map((operation) => ({
  id: operation,
  name: operationNames[operation],
  operation,
}));

/**
 * The layers of a job under a key: the key's own, then those standard ones that it does not name, then the job's;
 * a layer of the job's with the id of another stands in its place.
 */
export function layersUnder(key: ColourKey, ofJob: readonly Layer[] = []): Layer[] {
  const own = new Set(key.layers.map((layer) => layer.id));
  const usual = [...key.layers, ...standardLayers.filter((layer) => !own.has(layer.id))];
  const known = new Set(usual.map((layer) => layer.id));
  const changed = usual.map((layer) => ofJob.find(({ id }) => id === layer.id) ?? layer);
  return [...changed, ...ofJob.filter(({ id }) => !known.has(id))];
}

/** One half of a paint. */
export interface Mark {
  readonly part: PaintPart;
  readonly colour: Colour;
  /** Stroke width in mm; null for fills. */
  readonly widthMm: number | null;
}

const difference = differenceCiede2000();

/** How different two `#RRGGBB` colours look: CIEDE2000, 0 for the same, about 1 just noticeable. */
export function colourDistance(a: Colour, b: Colour): number {
  if (a === b) return 0;
  return difference(parse(a) ?? a, parse(b) ?? b);
}

/** How far from grey a colour may be, as chroma in CIELAB, to count as one. */
const greyChroma = 8;

const toLab = converter('lab');

/** The lightness of a colour, 0 for black and 100 for white (CIELAB), and how far from grey it is. */
export function lightnessOf(colour: Colour): { lightness: number; chroma: number } {
  const { l, a, b } = toLab(colour) ?? { l: 0, a: 0, b: 0 };
  return { lightness: l, chroma: Math.hypot(a, b) };
}

function isGreyWithin(colour: Colour, { from, to }: { from: number; to: number }): boolean {
  const { lightness, chroma } = lightnessOf(colour);
  return chroma <= greyChroma && lightness >= from - 1e-6 && lightness <= to + 1e-6;
}

export function ruleFits(rule: Rule, mark: Mark): boolean {
  if (rule.part !== mark.part) return false;
  if (mark.widthMm !== null) {
    if (rule.minWidthMm !== null && mark.widthMm < rule.minWidthMm) return false;
    if (rule.maxWidthMm !== null && mark.widthMm > rule.maxWidthMm) return false;
  }
  if (rule.grey && !isGreyWithin(mark.colour, rule.grey)) return false;
  return rule.colour === null || colourDistance(rule.colour, mark.colour) <= rule.tolerance;
}

/** The layer the key puts a paint on, by its first rule that fits; null when none does. */
export function layerByKey(key: ColourKey, mark: Mark): string | null {
  return key.rules.find((rule) => ruleFits(rule, mark))?.layerId ?? null;
}

/** The key that reads our own operation colours, as strokes and as fills. */
export function operationColourKey(id: string, name: string): ColourKey {
  const parts: PaintPart[] = ['stroke', 'fill'];
  const rules = parts.flatMap((part) =>
    operations.map((operation) => ({
      part,
      colour: operationColours[operation],
      tolerance: 1,
      minWidthMm: null,
      maxWidthMm: null,
      layerId: operation,
    })),
  );
  return { id, name, layers: standardLayers, rules };
}
