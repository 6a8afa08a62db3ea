import { boundsOf, type Item, perItem, polylinesOf } from '../document/item.ts';
import { boxContains } from '../geometry/paths/box.ts';
import { type Polyline, polylineContains, polylineLength } from '../geometry/paths/flatten.ts';
import { distanceToLines } from '../geometry/questions/distance.ts';
import type { Mend } from '../mends/mend.ts';
import { fillsAreas, labelOperation, separates } from '../operations/operations.ts';
import { nestedLines } from '../plan/nested-lines.ts';
import type { BurnPlan } from '../plan/plan.ts';
import type { PreparedJob, PreparedLayer } from '../plan/prepare.ts';
import { formatClock, formatDuration } from '../units/duration.ts';
import { openLinesOfEach } from './every-layer.ts';
import { type Check, countOf, finding, ifAny, itemsOfLayers, withMends } from './finding.ts';
import { scored } from './offers.ts';

/*
 * What burns as it is drawn, and is perhaps not what was meant.
 */

/** As far as this, in mm, an end may lie from an edge and be on it. */
const onEdge = 0.1;

/** Open cuts that run from edge to edge of a piece: where a bend was meant, the piece falls in two. */
export function cutsInTwo(prepared: PreparedJob): Item[] {
  const cuts = prepared.layers.filter(({ layer, on }) => on && separates(layer.operation));
  if (openLinesOfEach(itemsOfLayers(cuts)).every((lines) => lines.length === 0)) return [];
  const { lines } = nestedLines(prepared, cuts);
  const closed = lines.filter(({ line }) => line.closed);
  const dividing = lines.filter(({ item, line }) => {
    if (line.closed || line.points.length < 4) return false;
    const last = line.points.length - 2;
    return closed.some(
      (piece) =>
        piece.item !== item &&
        boxContains(boundsOf(piece.item), boundsOf(item), onEdge) &&
        distanceToLines([piece.line], line.points[0], line.points[1]) <= onEdge &&
        distanceToLines([piece.line], line.points[last], line.points[last + 1]) <= onEdge &&
        middleLiesIn(line, piece.line),
    );
  });
  return [...new Set(dividing.map(({ item }) => item))];
}

/** Says so. */
export const checkCutsInTwo: Check = (prepared) => {
  const items = cutsInTwo(prepared);
  return ifAny(items, () =>
    withMends(
      finding(
        'cut-in-two',
        'warns',
        `${countOf(items.length, 'cut runs', 'cuts run')} from edge to edge of a piece, which falls in two there. If it is to bend there, score the line.`,
        items,
      ),
      scored(prepared, items),
    ),
  );
};

function middleLiesIn({ points }: Polyline, piece: Polyline): boolean {
  // Halfway along its middle edge, off the ends that lie on the edge.
  const i = 2 * Math.floor((points.length / 2 - 1) / 2);
  const [x, y] = [(points[i] + points[i + 2]) / 2, (points[i + 1] + points[i + 3]) / 2];
  return polylineContains(piece, x, y) && distanceToLines([piece], x, y) > onEdge;
}

/** A run that is mirrored on stock that one cannot see through, and not turned over. */
export const checkMirrored: Check = ({ run, layers }) => {
  const opaque = new Set(
    layers.flatMap(({ burns, material }) => (burns && material && !material.isClear ? [material.name] : [])),
  );
  if (!run.mirrored || run.stock === 'turned over' || opaque.size === 0) return [];
  return [
    withMends(
      finding(
        'mirrored-opaque',
        'notes',
        `${run.name} burns mirrored on ${[...opaque].join(' and ')}, which one cannot see through: it will read the wrong way round.`,
      ),
      {
        words: 'Burn it as drawn',
        name: 'burn as drawn, not mirrored',
        isSafe: false,
        step: { kind: 'not mirrored', runId: run.id },
      },
    ),
  ];
};

/** Engravings that take longer than this are asked about, in seconds. */
const longS = 600;
/** Lines further apart than this, in mm, no longer look like an area. */
const coarsest = 0.3;

/** Engravings that burn for so long that another way may do. */
export const checkLongEngraving: Check = (prepared, plan) =>
  prepared.layers.flatMap((layer) => {
    const timeS = timeOf(plan, layer);
    if (timeS < longS || !fillsAreas(layer.layer.operation)) return [];
    return [
      withMends(
        finding(
          'long-engraving',
          'notes',
          `${layer.layer.name} takes ${formatDuration(timeS)}. ${quicker(layer)}`,
          layer.placed.map(({ item }) => item),
          layer.layer.id,
        ),
        coarser(layer, timeS),
        outlined(prepared, layer, timeS),
      ),
    ];
  });

function quicker({ placed }: PreparedLayer): string {
  const hasPicture = placed.some(({ item }) => item.shape.kind === 'picture');
  return hasPicture
    ? 'Lines further apart take less; so do the outlines of a picture, which Make outlines in Art finds.'
    : 'Lines further apart, or outlines alone, take less.';
}

function timeOf({ steps }: BurnPlan, { id }: PreparedLayer): number {
  return steps.reduce((sum, step) => (step.preparedId === id ? sum + step.timeS : sum), 0);
}

/** Half as many lines; null where they would be too far apart. */
function coarser({ id, layer, applied }: PreparedLayer, timeS: number): Mend | null {
  const mm = Math.round((applied.settings?.lineSpacingMm ?? coarsest) * 2000) / 1000;
  if (mm > coarsest) return null;
  return {
    words: `Lines of ${mm.toFixed(2)} mm, −${formatClock(timeS / 2)}`,
    name: `lines of ${mm.toFixed(2)} mm on ${layer.name}`,
    isSafe: false,
    step: { kind: 'set', preparedId: id, setting: 'lineSpacingMm', value: mm },
  };
}

const lengthOfItem = perItem((item) => polylinesOf(item).reduce((sum, line) => sum + polylineLength(line), 0));

/** The outlines of what is filled, scored; null where nothing is scored here. */
function outlined(prepared: PreparedJob, { placed }: PreparedLayer, timeS: number): Mend | null {
  const scores = prepared.layers.find(({ layer, applied }) => layer.operation === labelOperation && applied.settings);
  const items = placed.flatMap(({ item }) => (item.shape.kind === 'picture' ? [] : [item]));
  const mend = scored(prepared, items);
  if (!mend || !scores?.applied.settings) return null;
  const length = items.reduce((sum, item) => sum + lengthOfItem(item), 0);
  const saved = timeS - length / scores.applied.settings.speedMmPerS;
  if (saved < timeS / 2) return null;
  return { ...mend, words: `Score the outlines, −${formatClock(saved)}` };
}
