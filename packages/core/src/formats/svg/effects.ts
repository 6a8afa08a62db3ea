import type { Notes } from '../reading.ts';
import { readShare } from './context.ts';
import type { Declared } from './style.ts';

/** Properties that change how an element looks and are not applied. */
const effects = new Set(['mask', 'filter', 'opacity', 'marker', 'marker-start', 'marker-mid', 'marker-end']);

/** Notes what changes how an element looks and is not applied. */
export function noteEffects(own: Declared, notes: Notes): void {
  let marked = false;
  for (const property in own) {
    if (!effects.has(property) || own[property].trim() === 'none') continue;
    if (property === 'mask') notes.add('changed', 'mask-not-applied', 'a masked part is taken whole');
    else if (property === 'filter') notes.add('changed', 'filter-not-applied', 'a filter is not applied');
    else if (property !== 'opacity') marked = true;
    else {
      const opacity = readShare(own.opacity, 1);
      if (opacity < 1 && opacity > 0) notes.add('changed', 'see-through', 'a see-through colour is taken as solid');
    }
  }
  if (marked) notes.add('left-out', 'marker-not-read', 'arrowheads and other markers are left out');
}
