import type { Item } from '../document/item.ts';
import { type Polyline, polylineLength } from '../geometry/paths/flatten.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { widthsOf } from '../geometry/questions/widths.ts';
import type { Mend } from '../mends/mend.ts';
import { separates } from '../operations/operations.ts';
import { nestedLines } from '../plan/cut-steps.ts';
import { tabsOnLine } from '../plan/held.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import { type Check, countOf, finding, ifAny, withMends } from './finding.ts';

/** A piece that comes loose when its outline is cut. */
interface LoosePiece {
  readonly item: Item;
  readonly subpath: number;
  readonly line: Polyline;
  readonly layer: PreparedLayer;
  /** How far it is across where it is widest, in mm. */
  readonly across: number;
}

/** Pieces that nothing holds once they are cut. */
function loosePieces(prepared: PreparedJob): LoosePiece[] {
  const cuts = prepared.layers.filter(({ layer, burns }) => burns && separates(layer.operation));
  return nestedLines(prepared, cuts).flatMap(({ layerIndex, line: { item, line, nth }, depth }) => {
    const layer = cuts[layerIndex];
    if (!line.closed || depth % 2 === 1) return [];
    const { settings } = layer.applied;
    if (settings && tabsOnLine(prepared.job, settings, { item, nth, line }).length > 0) return [];
    return [{ item, subpath: nth, line, layer, across: widthsOf(line).most }];
  });
}

/** Pieces so small that they drop between what the stock lies on, or tip there into the way of the head. */
export const checkLoose: Check = (prepared) => {
  const gap = prepared.machine.bedGapMm;
  if (!gap) return [];
  const small = loosePieces(prepared).filter(({ across }) => across < 2 * gap);
  const [drops, tips] = [small.filter(({ across }) => across < gap), small.filter(({ across }) => across >= gap)];
  const lies = `the ${gap} mm gaps of ${prepared.machine.name}’s bed`;
  const said = (code: 'drops' | 'tips', pieces: readonly LoosePiece[], sentence: string) =>
    ifAny([...new Set(pieces.map(({ item }) => item))], () =>
      withMends(
        finding(
          code,
          'notes',
          sentence,
          [...new Set(pieces.map(({ item }) => item))],
          null,
          pieces.map(({ line }) => polylineBounds(line)),
        ),
        heldBy(pieces, 2),
      ),
    );
  return [
    ...said(
      'drops',
      drops,
      `${countOf(drops.length, 'piece is', 'pieces are')} smaller than ${lies}, and would drop through.`,
    ),
    ...said(
      'tips',
      tips,
      `${countOf(tips.length, 'piece is', 'pieces are')} less than twice as large as ${lies}, and may tip up.`,
    ),
  ];
};

/** Holds pieces by tabs; null where all are too small for them. */
function heldBy(pieces: readonly LoosePiece[], count: number): Mend | null {
  const held = pieces.filter(({ line, layer: { applied } }) => {
    const { tabWidthMm, kerfMm } = applied.settings ?? { tabWidthMm: 0, kerfMm: 0 };
    return polylineLength(line) >= 2 * count * (tabWidthMm + kerfMm);
  });
  if (held.length === 0) return null;
  const words = `Hold ${held.length === 1 ? 'it' : 'each'} by ${count} tabs`;
  return {
    words,
    name: words.toLowerCase(),
    isSafe: false,
    step: { kind: 'hold', outlines: held.map(({ item: { id }, subpath }) => ({ itemId: id, subpath })), count },
  };
}
