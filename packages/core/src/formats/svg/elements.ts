import { type SvgElement, textIn } from './xml.ts';

/*
 * What elements there are, and what is said of one whatever it draws.
 */

/** Elements that are outlines. */
export const drawn = new Set(['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon']);
/** Elements that hold others. */
export const holders = new Set(['g', 'a', 'switch', 'use', 'svg', 'symbol']);
/** Elements that draw nothing by themselves. */
export const silent = new Set([
  'title',
  'desc',
  'metadata',
  'style',
  'defs',
  'script',
  'linearGradient',
  'radialGradient',
  'pattern',
  'clipPath',
  'mask',
  'marker',
  'symbol',
  'filter',
  'view',
  'cursor',
  'font',
  'font-face',
  'color-profile',
  'animate',
  'animateTransform',
  'animateMotion',
  'animateColor',
  'set',
  'hatch',
  'solidcolor',
]);

/** By `systemLanguage` and `requiredExtensions`: whether a choice of a `switch` is one for us. */
export function isForUs({ attributes }: SvgElement): boolean {
  const { systemLanguage, requiredExtensions } = attributes;
  if (requiredExtensions !== undefined) return false;
  return systemLanguage === undefined || systemLanguage.split(',').some((language) => /^\s*en\b/i.test(language));
}

/** Whether an element is another, or lies in it. */
export function isWithin(element: SvgElement, ancestor: SvgElement): boolean {
  for (let above: SvgElement | null = element; above; above = above.parent) if (above === ancestor) return true;
  return false;
}

/** A label, else a title, else an id: what a person might have called it. */
export function nameOf(element: SvgElement): string | null {
  const title = element.children.find(({ name }) => name === 'title');
  const label =
    element.attributes['aria-label'] ?? element.attributes.label ?? (title && textIn(title)) ?? element.attributes.id;
  return label?.trim().slice(0, 200) || null;
}
