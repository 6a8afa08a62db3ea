import type { Paint } from '../document/item.ts';
import { fillsAreas, type Operation, operationOf } from '../operations/operations.ts';
import { type ColourKey, layersUnder, type Rule } from './key.ts';

/** Lines that mean an operation are drawn this thin, in mm, where the key does not ask for another width. */
const hairline = 0.1;

/**
 * The paint in which something drawn here has an operation under a colour key: that of the key's first rule
 * for it. Where the key has none, our own colour, pinned to the operation's layer.
 */
export function drawnPaint(key: ColourKey, operation: Operation): { paint: Paint; pinned: string | null } {
  const part = fillsAreas(operation) ? 'fill' : 'stroke';
  const layers = layersUnder(key);
  const meant = (rule: Rule) => layers.find(({ id }) => id === rule.layerId)?.operation === operation;
  const rule = key.rules.find((known) => known.part === part && known.colour !== null && meant(known));
  const { colour } = operationOf(operation);
  return {
    paint: paintOfRule(rule ?? { part, colour, minWidthMm: null, maxWidthMm: null }) as Paint,
    pinned: rule ? null : (layers.find((layer) => layer.operation === operation)?.id ?? null),
  };
}

/** The paint that a rule of a key is for: a hairline where its widths take one, or an area. Null where any colour will do. */
export function paintOfRule(rule: Pick<Rule, 'part' | 'colour' | 'minWidthMm' | 'maxWidthMm'>): Paint | null {
  const { part, colour, minWidthMm, maxWidthMm } = rule;
  if (colour === null) return null;
  if (part === 'fill') return { stroke: null, strokeWidthMm: 0, fill: colour };
  const strokeWidthMm = Math.min(maxWidthMm ?? hairline, Math.max(minWidthMm ?? hairline, hairline));
  return { stroke: colour, strokeWidthMm, fill: null };
}
