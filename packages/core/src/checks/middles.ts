import type { Item } from '../document/item.ts';
import type { Bridged } from '../edits/bridge.ts';
import { type Box, boxCentre } from '../geometry/paths/box.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { tabsOnLine } from '../plan/held.ts';
import { cutLayers, nestedLines } from '../plan/nested-lines.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { type Check, countOf, finding, withMends } from './finding.ts';

/** A bridge is this wide, in mm, where the book does not say what holds. */
const usualBridge = 1;

/** A piece within a hole of another, and that hole. */
interface Middle {
  readonly item: Item;
  readonly line: Polyline;
  readonly hole: Item;
  readonly holeLine: Polyline;
}

function middlesIn(prepared: PreparedJob): Middle[] {
  const cuts = cutLayers(prepared);
  const { lines, layerIndices, closed, depths, parents, twins } = nestedLines(prepared, cuts);
  const middles: Middle[] = [];
  for (let i = 0; i < lines.length; i++) {
    if (depths[i] < 2 || depths[i] % 2 === 1 || closed[i] === 0 || twins[i] === 1 || parents[i] < 0) continue;
    const { settings } = cuts[layerIndices[i]].applied;
    const [line, around] = [lines[i], lines[parents[i]]];
    if (!settings || tabsOnLine(prepared.job, settings, line).length > 0) continue;
    middles.push({ item: line.item, line: line.line, hole: around.item, holeLine: around.line });
  }
  return middles;
}

/** Pieces within holes, such as the middle of an O in a stencil: they fall out with what is around them. */
export const checkMiddles: Check = (prepared) => {
  const middles = middlesIn(prepared);
  if (middles.length === 0) return [];
  const least = Math.max(
    usualBridge,
    ...prepared.layers.flatMap(({ material }) => material?.leastSizes?.cut?.detailMm ?? []),
  );
  const isOne = middles.length === 1;
  return [
    withMends(
      finding(
        'loose-middle',
        'notes',
        `${countOf(middles.length, 'piece lies', 'pieces lie')} within a hole of another and ${isOne ? 'falls' : 'fall'} out with it. In a stencil, bridges hold the middles of letters.`,
        [...new Set(middles.map(({ item }) => item))],
        null,
        middles.map(({ line }) => polylineBounds(line)),
      ),
      {
        words: `Bridge ${isOne ? 'it' : 'them'}, ${least} mm wide`,
        name: `bridges ${least} mm wide`,
        isSafe: false,
        step: { kind: 'bridge', bridged: bridgesFor(middles, least) },
      },
    ),
  ];
};

/** For each hole, bars from its top to its bottom through the middles in it. */
function bridgesFor(middles: readonly Middle[], widthMm: number): Bridged[] {
  const byHole = new Map<Item, { middleIds: Set<string>; bars: Box[] }>();
  for (const { item, line, hole, holeLine } of middles) {
    const known = byHole.get(hole) ?? { middleIds: new Set(), bars: [] };
    byHole.set(hole, known);
    if (item !== hole) known.middleIds.add(item.id);
    const { x } = boxCentre(polylineBounds(line));
    const { minY, maxY } = polylineBounds(holeLine);
    known.bars.push({ minX: x - widthMm / 2, maxX: x + widthMm / 2, minY: minY - 1, maxY: maxY + 1 });
  }
  return [...byHole].map(([hole, { middleIds, bars }]) => ({ holeId: hole.id, middleIds: [...middleIds], bars }));
}
