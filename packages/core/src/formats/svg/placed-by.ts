import type { Declared } from './specified.ts';
import { type Axis, type LengthContext, lengthInUserUnits } from './values.ts';
import type { SvgElement } from './xml.ts';

/*
 * Where an element stands and how large it is: CSS says it over the element's attributes (SVG 2, chapter 10).
 */

/** Whether CSS takes a text for a length; unlike attributes, it wants a unit. */
export function hasUnit(text: string): boolean {
  const value = Number(text);
  return !Number.isFinite(value) || value === 0;
}

/** What an element says of a side, a place or a radius, as text. */
function placingText(element: SvgElement, own: Declared, name: string): string | undefined {
  const said = own[name];
  if (said === undefined || !hasUnit(said)) return element.attributes[name];
  return said.trim() === 'auto' ? undefined : said;
}

/** The same in user units; null where there is nothing, or no length. */
export function placing(
  element: SvgElement,
  own: Declared,
  name: string,
  context: LengthContext,
  axis: Axis,
): number | null {
  return lengthInUserUnits(placingText(element, own, name), context, axis);
}

/** A path's data: what CSS says in `path()`, else its attribute. */
export function pathDataOf(element: SvgElement, own: Declared): string {
  const said = own.d?.trim();
  const inCss = said === undefined ? null : /^path\(\s*(["'])([\s\S]*)\1\s*\)$/.exec(said);
  if (inCss) return inCss[2];
  return said === 'none' ? '' : (element.attributes.d ?? '');
}
