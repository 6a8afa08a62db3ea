import { boundsOf, type Item, type Paint } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Layer } from '../document/layer.ts';
import type { CombinedPart } from '../document/shape.ts';
import { rectangleOf } from '../document/shapes.ts';
import type { Sheet } from '../document/sheet.ts';
import { pinItems } from '../edits/items.ts';
import { setLayer } from '../edits/layers.ts';
import { plainOffset } from '../geometry/offsets/offset.ts';
import { boxCentre, boxHeight, boxWidth, growBox } from '../geometry/paths/box.ts';
import { identity } from '../geometry/paths/matrix.ts';
import { PathBuilder } from '../geometry/paths/path.ts';
import { offsetOf } from './follow.ts';

/** What a holder is like; lengths in mm. */
export interface HolderWish {
  /** How much wider the pocket is than the object. */
  readonly clearanceMm: number;
  /** How wide the card around the pocket is. */
  readonly rimMm: number;
  /** The diameter of the notches to take the object out by, at both ends of its longer side; 0 for none. */
  readonly notchMm: number;
  /** Whether its corners are marked on the card. */
  readonly corners: boolean;
  /** What the object is of, so that it burns with that recipe; null leaves it to the sheet it lies on. */
  readonly materialId: string | null;
}

export const usualHolder: HolderWish = { clearanceMm: 0.3, rimMm: 15, notchMm: 12, corners: true, materialId: null };

/** What a holder is made with: the shop's paints for cutting and scoring, the guide layer, all layers of the job. */
export interface HolderMeans {
  readonly cut: Paint;
  readonly score: Paint;
  readonly guideId: string | null;
  readonly layers: readonly Layer[];
  readonly newId: () => string;
}

const holderCut: Layer = { id: 'holder-cut', name: 'Holder, cut', operation: 'cut' };
const holderScore: Layer = { id: 'holder-score', name: 'Holder, scored', operation: 'score' };

/** How far corner marks stay from the pocket, and how long their arms are. */
const markGap = 1.5;
const markArm = 6;

/**
 * Makes a holder for an object from its outline: a pocket that follows the outline, finger notches, a plate around it
 * and marks at its corners, on layers of their own. The outline becomes a guide. The first run of the job cuts the
 * holder, the next burns everything else with the object in it.
 *
 * @returns the job as it is where the object is none, or the pocket comes to nothing
 */
export function addHolder(
  job: JobDocument,
  objectId: string,
  { clearanceMm, rimMm, notchMm, corners, materialId }: HolderWish,
  { cut, score, guideId, layers, newId }: HolderMeans,
): { job: JobDocument; ids: string[] } {
  const object = job.drawing.items.find(({ id }) => id === objectId);
  if (!object || object.shape.kind === 'picture') return { job, ids: [] };
  const settings = { ...plainOffset, by: clearanceMm / 2, ignoreHoles: true };
  const path = offsetOf([object], settings);
  if (path.verbs.length === 0) return { job, ids: [] };
  const box = boundsOf(object);
  const made = (name: string, shape: Item['shape'], layer: Layer, paint: Paint): Item => ({
    id: newId(),
    name,
    shape,
    matrix: identity,
    paint,
    fillRule: 'nonzero',
    groupId: null,
    pinned: layer.id,
    hidden: false,
  });
  const part = (name: string, shape: CombinedPart['shape']): CombinedPart => ({
    name,
    shape,
    matrix: identity,
    rule: 'nonzero',
  });
  const { x, y } = boxCentre(box);
  const lies = boxWidth(box) >= boxHeight(box);
  const ends = lies
    ? [
        [box.minX, y],
        [box.maxX, y],
      ]
    : [
        [x, box.minY],
        [x, box.maxY],
      ];
  const notches = ends.map(([cx, cy]) => part('Notch', { kind: 'ellipse', cx, cy, rx: notchMm / 2, ry: notchMm / 2 }));
  const pocket = part('Pocket', { kind: 'offset', sources: [objectId], settings, path });
  const items = [
    made('Holder', rectangleOf(growBox(box, rimMm)), holderCut, cut),
    notchMm > 0
      ? made('Pocket', { kind: 'combined', how: 'unite', parts: [pocket, ...notches] }, holderCut, cut)
      : made('Pocket', pocket.shape, holderCut, cut),
    ...(corners
      ? [
          made(
            'Corners',
            { kind: 'path', path: cornerMarks(growBox(box, clearanceMm / 2 + markGap)) },
            holderScore,
            score,
          ),
        ]
      : []),
  ];
  const ids = items.map(({ id }) => id);
  let next: JobDocument = { ...job, drawing: { ...job.drawing, items: [...job.drawing.items, ...items] } };
  for (const layer of [holderCut, holderScore]) next = setLayer(next, layer);
  if (guideId !== null) next = pinItems(next, new Set([objectId]), guideId);
  if (materialId !== null) next = withObjectSheet(next, { ...sheetOf(object), id: newId(), materialId });
  return { job: { ...next, runs: holderRuns(next, layers, newId) }, ids };
}

/** The piece of stock that an object is. */
function sheetOf(object: Item): Omit<Sheet, 'id' | 'materialId'> {
  const box = boundsOf(object);
  return { x: box.minX, y: box.minY, width: boxWidth(box), height: boxHeight(box), margin: 0 };
}

function withObjectSheet(job: JobDocument, sheet: Sheet): JobDocument {
  return { ...job, sheets: [...job.sheets, sheet] };
}

/** One run that cuts holders alone, first; holders are left out of the others. */
function holderRuns({ runs }: JobDocument, layers: readonly Layer[], newId: () => string): JobDocument['runs'] {
  const own = [holderCut.id, holderScore.id];
  const burnsHolders = ({ off }: JobDocument['runs'][number]) => !own.every((id) => off.includes(id));
  const known = runs.find((run) => run.name === 'Holder' && burnsHolders(run));
  const others = runs
    .filter((run) => run !== known)
    .map((run) => ({ ...run, off: [...new Set([...run.off, ...own])], stock: 'in place' as const }));
  if (known) return [known, ...others];
  const [first] = runs;
  const rest = layers.map(({ id }) => id).filter((id) => !own.includes(id));
  const holder = {
    ...first,
    id: newId(),
    name: 'Holder',
    off: rest,
    only: null,
    mirrored: false,
    stock: 'fresh' as const,
  };
  return [holder, ...others.map((run, i) => (i === 0 && run.name === 'Run 1' ? { ...run, name: 'Object' } : run))];
}

/** An angle at each corner of a box, its arms along the box's sides. */
function cornerMarks({ minX, minY, maxX, maxY }: ReturnType<typeof boundsOf>) {
  const builder = new PathBuilder();
  for (const [x, y, dx, dy] of [
    [minX, minY, 1, 1],
    [maxX, minY, -1, 1],
    [maxX, maxY, -1, -1],
    [minX, maxY, 1, -1],
  ]) {
    builder
      .moveTo(x + dx * markArm, y)
      .lineTo(x, y)
      .lineTo(x, y + dy * markArm);
  }
  return builder.build();
}
