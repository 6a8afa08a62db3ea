import { separates } from '@lambent/core/operations';
import { type BurnPlan, type CutPieces, cutPieces, Move, type PreparedJob } from '@lambent/core/plan';
import type { View } from './view.ts';

/** How wide a cut looks where its kerf is not known, in mm. */
export const guessedKerf = 0.2;

const ways = new WeakMap<BurnPlan, { width: number; path: Path2D }[]>();
const known = new WeakMap<PreparedJob, CutPieces>();

/** How cut outlines lie in each other; kept for as long as the job is. */
export function piecesOf(prepared: PreparedJob): CutPieces {
  let pieces = known.get(prepared);
  if (!pieces) {
    pieces = cutPieces(prepared);
    known.set(prepared, pieces);
  }
  return pieces;
}

/** The ways of the beam of every cut, each as wide as the beam takes away. */
function waysOf(plan: BurnPlan): { width: number; path: Path2D }[] {
  let all = ways.get(plan);
  if (!all) {
    all = plan.steps
      .filter(({ operation }) => separates(operation))
      .map(({ moves: { kinds, xs, ys }, settings }) => {
        const path = new Path2D();
        for (let i = 0; i < kinds.length; i++) {
          if (kinds[i] === Move.lit) path.lineTo(xs[i], ys[i]);
          else path.moveTo(xs[i], ys[i]);
        }
        return { width: settings.kerfMm || guessedKerf, path };
      });
    ways.set(plan, all);
  }
  return all;
}

/** Draws what cutting takes from the sheet: what falls out of pieces, and the width of the burn itself. */
export function drawGaps(
  context: CanvasRenderingContext2D,
  view: View,
  prepared: PreparedJob,
  plan: BurnPlan,
  bed: string,
): void {
  context.save();
  context.transform(view.scale, 0, 0, view.scale, view.x, view.y);
  const fallen = new Path2D();
  for (const { points } of piecesOf(prepared).holes) {
    fallen.moveTo(points[0], points[1]);
    for (let i = 2; i < points.length; i += 2) fallen.lineTo(points[i], points[i + 1]);
    fallen.closePath();
  }
  context.fillStyle = bed;
  context.fill(fallen, 'evenodd');
  context.lineJoin = 'round';
  context.lineCap = 'round';
  context.strokeStyle = '#241307';
  for (const { width, path } of waysOf(plan)) {
    context.lineWidth = Math.max(width, 0.7 / view.scale);
    context.stroke(path);
  }
  context.restore();
}
