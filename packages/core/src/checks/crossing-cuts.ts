import { type Item, pathOf, polylinesOf } from '../document/item.ts';
import { areaOf, sizeOfArea } from '../geometry/areas/area.ts';
import { facesOf } from '../geometry/areas/faces.ts';
import type { Mend } from '../mends/mend.ts';
import { separates } from '../operations/operations.ts';
import { crossingClusters } from '../plan/crossings.ts';
import { burntItems, type Check, type Finding, finding, withMends } from './finding.ts';
import { itemsMovedByKerf } from './kerf.ts';

/** Of more lines than these it is not said into how many pieces they part what they enclose. */
const mostParted = 12;
/** More places where cuts cross are put together in one finding. */
const mostFindings = 12;

/**
 * Closed outlines that are cut and cross: more comes loose than is drawn. Where the beam is moved by half the kerf, both
 * outlines are, and what is cut is not the size that the screen states.
 */
export const checkCrossingCuts: Check = (prepared) => {
  const items = burntItems(prepared, separates);
  const moved = itemsMovedByKerf(prepared);
  const clusters = crossingClusters(items);
  const told = clusters.slice(0, mostFindings).map(({ items: members, places }) => {
    const level = members.some((item) => moved.has(item)) ? 'blocks' : 'warns';
    const found = finding('cuts-cross', level, sentence(members, level), members, null, places);
    return withMends(found, ...mendsFor(members));
  });
  const rest = clusters.slice(mostFindings);
  if (rest.length === 0) return told;
  const others = rest.flatMap((cluster) => cluster.items);
  const places = rest.flatMap((cluster) => cluster.places);
  const level = others.some((item) => moved.has(item)) ? 'blocks' : 'warns';
  return [...told, finding('cuts-cross', level, sentence(others, level), others, null, places)];
};

function sentence(items: readonly Item[], level: Finding['level']): string {
  const lines = items.flatMap((item) => polylinesOf(item).filter(({ closed }) => closed));
  const pieces = lines.length <= mostParted ? facesOf(lines).length : null;
  const loose = pieces === null ? 'More pieces come loose than are drawn' : `${pieces} pieces come loose where they do`;
  const kerf =
    level === 'blocks' ? ' The kerf moves each of them, so that what is cut is not the size that is drawn.' : '';
  return `${items.length} cut outlines cross. ${loose}.${kerf} Unite them, or take one out of the other.`;
}

const areaOfItem = (item: Item) => areaOf(pathOf(item), 'evenodd');

function mendsFor(items: readonly Item[]): Mend[] {
  const ids = items.map(({ id }) => id);
  const unite: Mend = {
    words: items.length === 2 ? 'Unite them' : `Unite the ${items.length}`,
    name: `unite ${items.length} outlines`,
    isSafe: false,
    step: { kind: 'combine', itemIds: ids, how: 'unite' },
  };
  if (items.length !== 2) return [unite];
  const [large, small] = [...items].sort((a, b) => sizeOfArea(areaOfItem(b)) - sizeOfArea(areaOfItem(a)));
  return [
    {
      words: 'Take the smaller out of the larger',
      name: 'take one outline out of the other',
      isSafe: false,
      step: { kind: 'combine', itemIds: [large.id, small.id], how: 'subtract' },
    },
    unite,
    {
      words: 'Trim the smaller',
      name: 'trim an outline',
      isSafe: false,
      step: { kind: 'trim', itemId: small.id, withinId: large.id },
    },
  ];
}
