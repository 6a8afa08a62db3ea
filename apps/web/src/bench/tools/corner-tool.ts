import {
  applyTo,
  type Corner,
  type Item,
  invert,
  largestCorner,
  meanScale,
  nodesOf,
  outlineOf,
  type Path,
  type Point,
  replaceShape,
  type Shape,
  shapeCorners,
  sharpOutlineOf,
  transformPath,
} from '@lambent/core';
import { toast } from 'sonner';
import type { BenchActions } from '../store.ts';
import { itemUnder, newId, showDraft } from './draw.ts';
import type { Tool, ToolPoint } from './tool.ts';

const reachPx = 12;

/** Rounds or cuts off the corner that is clicked; a click on a corner that is shaped already gives it the new size. */
export class CornerTool implements Tool {
  readonly name = 'corner';
  readonly snaps = false;
  readonly from = null;

  constructor(private readonly actions: BenchActions) {}

  move(point: ToolPoint): void {
    const found = this.under(point);
    if (!found) {
      showDraft(this.actions, null);
      return;
    }
    const { item, at } = found;
    const shaped = this.shaped(item, at);
    const outline = typeof shaped === 'string' ? null : transformPath(outlineOf(shaped), item.matrix);
    showDraft(this.actions, { outline, dots: [applyTo(item.matrix, at.x, at.y)] });
  }

  down(point: ToolPoint): void {
    const found = point.button === 0 ? this.under(point) : null;
    if (!found) return;
    const shape = this.shaped(found.item, found.at);
    if (typeof shape === 'string') {
      toast.error(shape);
      return;
    }
    const { corner, cornerSize } = this.actions.get().toolOptions;
    const name = corner === 'round' ? `round a corner to ${cornerSize} mm` : `cut a corner off by ${cornerSize} mm`;
    showDraft(this.actions, null);
    this.actions.edit(name, (job) => replaceShape(job, found.item.id, [shape], newId));
  }

  up(): void {
    // The press did it.
  }

  cancel(): boolean {
    showDraft(this.actions, null);
    return false;
  }

  /** The item whose corner is near, and the corner in the frame of its shape. */
  private under({ free }: ToolPoint): { item: Item; at: Point } | null {
    const item = itemUnder(this.actions, free, reachPx);
    const back = item && invert(item.matrix);
    if (!item || !back || item.shape.kind === 'picture') return null;
    const here = applyTo(back, free.x, free.y);
    const near = reachPx / this.actions.get().view.scale / meanScale(item.matrix);
    const distance = (p: Point) => Math.hypot(p.x - here.x, p.y - here.y);
    const shapedAlready = item.shape.kind === 'path' ? (item.shape.corners ?? []) : [];
    const candidates = [...cornersOf(sharpOutlineOf(item.shape)), ...shapedAlready];
    const nearest = candidates.reduce<Point | null>(
      (best, p) => (!best || distance(p) < distance(best) ? p : best),
      null,
    );
    const known = nearest && shapedAlready.find((corner) => corner.x === nearest.x && corner.y === nearest.y);
    const allowed = known ? Math.max(near, 2 * known.size) : near;
    return nearest && distance(nearest) <= allowed ? { item, at: { x: nearest.x, y: nearest.y } } : null;
  }

  /** The shape with its corner shaped, or a sentence why not. */
  private shaped(item: Item, at: Point): Shape | string {
    const { corner, cornerSize } = this.actions.get().toolOptions;
    const scale = meanScale(item.matrix);
    const path = sharpOutlineOf(item.shape);
    const others = (item.shape.kind === 'path' ? (item.shape.corners ?? []) : []).filter(
      ({ x, y }) => x !== at.x || y !== at.y,
    );
    const size = cornerSize / scale;
    if (size === 0) return { kind: 'path', path, ...(others.length > 0 ? { corners: others } : {}) };
    const most = largestCorner(shapeCorners(path, others), at, corner);
    if (most === 0) return 'There is no corner to shape there: the line goes straight on.';
    if (size > most + 1e-6)
      return `The corner can be ${(most * scale).toFixed(2)} mm at most; its edges are too short for more.`;
    const shaped: Corner = { ...at, kind: corner, size };
    return { kind: 'path', path, corners: [...others, shaped] };
  }
}

function cornersOf(path: Path): Point[] {
  return nodesOf(path).flatMap(({ nodes, closed }) =>
    (closed ? nodes : nodes.slice(1, -1)).map(({ x, y }) => ({ x, y })),
  );
}
