import { boundsOf, type Item, polylinesOf } from '../document/item.ts';
import { beamSide, kerfLines } from '../fit/kerf.ts';
import { type ThinPlace, thinPlaces } from '../geometry/offsets/thin.ts';
import { type Box, boxesMeet, growBox } from '../geometry/paths/box.ts';
import { type Polyline, signedArea } from '../geometry/paths/flatten.ts';
import { lineMeetsBox } from '../geometry/questions/line-in-box.ts';
import { gatherBy } from '../lists/gather.ts';
import { cutLayers, type NestedLines, nestedLines, outlinePlaces } from '../plan/nested-lines.ts';
import type { BurnLine } from '../plan/order.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import { type Check, countOf, type Finding, finding, ifAny, withMends } from './finding.ts';
import { cutOnce, scored } from './offers.ts';
import { overlappingOwners } from './overlap.ts';

interface KerfCut {
  readonly layer: PreparedLayer;
  readonly kerfMm: number;
  readonly line: BurnLine;
  readonly side: -1 | 0 | 1;
}

const known = new WeakMap<PreparedJob, readonly KerfCut[]>();

/** Every line of what is cut with a kerf, and on which side of it the beam goes. */
function kerfCuts(prepared: PreparedJob): readonly KerfCut[] {
  let cuts = known.get(prepared);
  if (!cuts) {
    const layers = cutLayers(prepared);
    const kerfs = layers.map(({ applied }) => applied.settings?.kerfMm ?? 0);
    cuts = kerfs.every((kerf) => kerf === 0) ? [] : cutsOf(nestedLines(prepared, layers), layers, kerfs);
    known.set(prepared, cuts);
  }
  return cuts;
}

function cutsOf(nested: NestedLines, layers: readonly PreparedLayer[], kerfs: readonly number[]): KerfCut[] {
  return outlinePlaces(nested).flatMap((i) => {
    const layer = layers[nested.layerIndices[i]];
    const kerfMm = kerfs[nested.layerIndices[i]];
    if (kerfMm === 0) return [];
    const line = nested.lines[i];
    return [{ layer, kerfMm, line, side: beamSide(line.item, line.nth, nested.depths[i], layer.burning.keep) }];
  });
}

/** The items that burn beside their lines, by half a kerf. */
export function itemsMovedByKerf(prepared: PreparedJob): ReadonlySet<Item> {
  return new Set(itemsOf(kerfCuts(prepared).filter(({ side }) => side !== 0)));
}

function itemsOf(cuts: readonly KerfCut[]): Item[] {
  return [...new Set(cuts.map(({ line }) => line.item))];
}

/** Outlines so narrow that the beam takes away all of them. */
export const checkKerf: Check = (prepared) => {
  const swallowed = kerfCuts(prepared).filter(
    ({ line, side, kerfMm }) => kerfLines(line.item, line.nth, side, kerfMm).length === 0,
  );
  return byLayer(swallowed).map(([layer, cuts]) =>
    withMends(
      finding(
        'kerf-swallows',
        'blocks',
        `${countOf(cuts.length, 'hole is', 'holes are')} no wider than the kerf of ${cuts[0].kerfMm} mm, and would not be burnt. Make it a single line, or set the kerf to 0.`,
        itemsOf(cuts),
        layer.layer.id,
      ),
      // An item that has other outlines, too, is more than a hole.
      scored(
        prepared,
        itemsOf(cuts).filter((item) => polylinesOf(item).length === 1),
      ),
    ),
  );
};

function byLayer(cuts: readonly KerfCut[]): [PreparedLayer, KerfCut[]][] {
  return [...gatherBy(cuts, ({ layer }) => layer)];
}

/**
 * Walls that the beam would take away, and slots and gaps between parts that it cannot go into. A wall that the beam
 * goes beside survives, however thin it is; one that is cut along its lines loses half the kerf on either side.
 */
export const checkThin: Check = (prepared) => {
  const cuts = kerfCuts(prepared);
  if (cuts.length === 0) return [];
  const kerfMm = Math.max(...cuts.map((cut) => cut.kerfMm));
  const { walls, gaps } = thinPlaces(
    cuts.map(({ line }) => line.line),
    kerfMm,
  );
  const cutsAt = ({ box }: ThinPlace) => cuts.filter(({ line }) => lineMeetsBox(line.line, box));
  const left = walls.map((place) => {
    const here = cutsAt(place);
    const onLine = here.filter(({ side }) => side === 0).length;
    const sides = onLine === 0 ? 0 : onLine === here.length ? 2 : 1;
    return { ...place, widthMm: place.widthMm - (sides * kerfMm) / 2 };
  });
  const burns = left.filter(({ widthMm }) => widthMm <= 0);
  const survives = left.filter(({ widthMm }) => widthMm > 0);
  // What is swallowed whole is said of its own; into a gap beside a cut along its line the beam does not have to go.
  const swallowed = cuts
    .filter(({ line, side }) => kerfLines(line.item, line.nth, side, kerfMm).length === 0)
    .map(({ line }) => growBox(boundsOf(line.item), 0.01));
  const narrow = gaps.filter(
    (place) =>
      !swallowed.some((box) => boxesMeet(box, place.box)) && cutsAt(place).filter(({ side }) => side !== 0).length > 0,
  );
  return [
    ...found('thin-wall', 'warns', burns, cuts, (count) => {
      const walled = countOf(count, 'place of a piece is', 'places of pieces are');
      return `${walled} thinner than the kerf of ${kerfMm} mm, and would burn away, for the beam goes along the lines. Make it wider, or have the cut keep what is inside.`;
    }),
    ...found('thin-wall', 'notes', survives, cuts, (count, thinnest) => {
      const walled = countOf(count, 'place of a piece is', 'places of pieces are');
      return `${walled} thinner than the kerf of ${kerfMm} mm: ${count === 1 ? 'it stays' : 'they stay'}, ${thinnest} mm wide at the thinnest, and may char through or break.`;
    }),
    ...found('narrow-gap', 'warns', narrow, cuts, (count) => {
      const gap = countOf(count, 'slot or gap is', 'slots or gaps are');
      return `${gap} narrower than the kerf of ${kerfMm} mm: the beam cannot keep to both sides, and what is beside it loses. Make it wider, or cut it as a single line.`;
    }),
  ];
};

function found(
  code: Finding['code'],
  level: Finding['level'],
  places: readonly ThinPlace[],
  cuts: readonly KerfCut[],
  say: (count: number, thinnest: string) => string,
): Finding[] {
  const boxes = places.map(({ box }) => box);
  const items = itemsOf(cuts.filter(({ line }) => boxes.some((box) => lineMeetsBox(line.line, box))));
  const thinnest = Math.min(...places.map(({ widthMm }) => widthMm)).toFixed(2);
  return ifAny(items, () => finding(code, level, say(places.length, thinnest), items, null, boxes));
}

/** Edges that two parts have in common: each would be cut into the other by half the kerf. */
export const checkSharedCuts: Check = (prepared) => {
  const { items, lengthMm } = sharedCuts(prepared);
  const kerfMm = Math.max(0, ...kerfCuts(prepared).map((cut) => cut.kerfMm));
  return ifAny(items, () =>
    withMends(
      finding(
        'shared-cut',
        'warns',
        `${lengthMm.toFixed(1)} mm of edge is shared by parts: with the kerf of ${kerfMm} mm it is cut twice, and each part loses ${kerfMm / 2} mm to the other. Move them the kerf apart, or cut along the lines, each once: then all edges lose half the kerf.`,
        items,
      ),
      cutOnce(prepared, items, true),
    ),
  );
};

/** The edges of pieces that lie on each other, and whose they are. */
export function sharedCuts(prepared: PreparedJob): { items: Item[]; lengthMm: number } {
  const edges = kerfCuts(prepared).filter(({ side }) => side === 1);
  const items = itemsOf(edges);
  const places = new Map(items.map((item, i) => [item, i]));
  const lines = edges.map(({ line }) => ({ owner: places.get(line.item) ?? 0, line: line.line }));
  const { owners, lengthMm } = overlappingOwners(lines);
  return { items: owners.map((owner) => items[owner]), lengthMm };
}

/** How much of a corner may stay where the beam's own width keeps it out, in mm, before it is said. */
const mostLeft = 0.1;

/** Inner corners so sharp that the beam leaves something in them. */
export const checkSharpCorners: Check = (prepared) => {
  const places: Box[] = [];
  const items = new Set<Item>();
  let most = 0;
  for (const { line, side, kerfMm } of kerfCuts(prepared)) {
    if (side === 0) continue;
    for (const { x, y, left } of sharpCorners(line.line, side, kerfMm)) {
      if (left <= mostLeft) continue;
      places.push(growBox({ minX: x, minY: y, maxX: x, maxY: y }, left));
      items.add(line.item);
      most = Math.max(most, left);
    }
  }
  return ifAny([...items], () =>
    finding(
      'sharp-corner',
      'notes',
      `In ${countOf(places.length, 'inner corner', 'inner corners')} the beam, being round, leaves up to ${most.toFixed(2)} mm. A part with a sharp corner will not go all the way in; round the corner, or cut a relief hole there.`,
      [...items],
      null,
      places,
    ),
  );
};

/** The corners of an outline that point into what is kept, and how far from each the beam's edge stays. */
function sharpCorners({ points }: Polyline, side: number, kerfMm: number): { x: number; y: number; left: number }[] {
  const count = points.length / 2;
  const winding = Math.sign(signedArea({ points, closed: true })) * side;
  const corners: { x: number; y: number; left: number }[] = [];
  for (let i = 0; i < count; i++) {
    const [h, j] = [(i + count - 1) % count, (i + 1) % count];
    const [x, y] = [points[2 * i], points[2 * i + 1]];
    const [ux, uy] = [x - points[2 * h], y - points[2 * h + 1]];
    const [vx, vy] = [points[2 * j] - x, points[2 * j + 1] - y];
    const turn = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy) * winding;
    // Turned away from the side that the beam is on, it goes around the corner and leaves nothing.
    if (turn >= 0) continue;
    const half = (Math.PI + turn) / 2;
    corners.push({ x, y, left: (1 / Math.sin(half) - 1) * (kerfMm / 2) });
  }
  return corners;
}
