import type { Item, Shape } from '@lambent/core';

/** What shapes are called, where they have no name of their own. */
export const shapeNames: Record<Shape['kind'], string> = {
  path: 'Path',
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  slot: 'Slot',
  polygon: 'Polygon',
  arc: 'Arc',
  text: 'Text',
  combined: 'Combination',
  picture: 'Picture',
};

export function nameOf({ name, shape }: Item): string {
  if (name) return name;
  if (shape.kind === 'text') return `“${shape.text.words.split('\n')[0]}”`;
  if (shape.kind === 'ellipse' && shape.rx === shape.ry) return 'Circle';
  return shape.kind === 'polygon' && shape.inner !== null ? 'Star' : shapeNames[shape.kind];
}
