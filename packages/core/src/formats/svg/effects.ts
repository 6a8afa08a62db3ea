import type { Notes } from '../reading.ts';
import { hasUnit } from './placed-by.ts';
import { unreadProperties } from './properties.ts';
import type { Declared } from './specified.ts';
import type { SvgTree } from './xml.ts';

/** Notes what an element says of how it looks, or where it lies, and that is not followed. */
export function noteEffects(own: Declared, notes: Notes): void {
  for (const [name, said] of unreadProperties(own)) notes.add('changed', `property-not-followed:${name}`, said);
  for (const name of ['x', 'y', 'width', 'height', 'cx', 'cy', 'r', 'rx', 'ry']) {
    if (own[name] === undefined || hasUnit(own[name])) continue;
    const said = `“${name}: ${own[name].slice(0, 20)}” in a style has no unit, and is not followed: write it with px`;
    notes.add('changed', `property-not-followed:${name}`, said);
  }
}

/** Notes what of the file’s own making is not followed. */
export function noteUnread({ unknownEntities, bareElements }: SvgTree, notes: Notes): void {
  for (const [name, count] of unknownEntities) {
    const said = `&${name}; is an entity that the file does not hold as plain text, and is not followed`;
    notes.add('left-out', `entity-not-followed:${name}`, said, [], count);
  }
  for (const [name, count] of bareElements) {
    const said = `<${name}> is not in the file’s namespace for SVG, does not show, and was left out`;
    notes.add('left-out', `not-of-svg:${name}`, said, [], count);
  }
}
