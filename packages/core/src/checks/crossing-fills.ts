import { engravesAreas } from '../operations/operations.ts';
import { crossingItems } from '../plan/crossings.ts';
import { type Check, finding, withMends } from './finding.ts';
import { uniteOverlaps } from './offers.ts';

/** Engravings whose outlines cross: where two of them overlap, neither burns. What lies whole in another is a hole of it. */
export const checkCrossingFills: Check = ({ layers }) =>
  layers.flatMap(({ layer, on, placed, burning }) => {
    if (!engravesAreas(layer.operation) || !on || burning.overlaps === 'unite' || placed.length < 2) return [];
    const { items, places } = crossingItems(placed.map(({ item }) => item));
    if (items.length === 0) return [];
    return [
      withMends(
        finding(
          'fills-cross',
          'warns',
          `${items.length} engravings on ${layer.name} cross, and where they overlap neither burns. If they are meant to be one, have overlaps on ${layer.name} unite.`,
          items,
          layer.id,
          places,
        ),
        uniteOverlaps(layer),
      ),
    ];
  });
