import { type Item, type JobDocument, outlineOf, pathOf, type Shape, sharpOutlineOf } from '@lambent/core/document';
import { type MeetingLine, meetLines, nearestPlace, replaceShape } from '@lambent/core/edits';
import {
  applyTo,
  type Corner,
  invert,
  largestCorner,
  meanScale,
  nodesOf,
  type Path,
  type Point,
  shapeCorners,
  transformPath,
} from '@lambent/core/geometry';
import { toast } from 'sonner';
import { t } from '../../words/words.ts';
import { newId } from '../new-id.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import { reachOnBed } from '../state/hand.ts';
import { itemUnder } from './draw.ts';
import type { Tool, ToolPoint } from './tool.ts';

const reachPx = 12;
const linePx = 8;

/**
 * Rounds or cuts off the corner that is clicked; a click on a corner that is shaped already gives it the new size.
 * Clicks on two lines away from their corners lead them to each other and shape the corner where they meet.
 */
export class CornerTool implements Tool {
  readonly name = 'corner';
  readonly snaps = false;
  readonly from = null;

  /** The first of two lines that are to meet. */
  private first: MeetingLine | null = null;

  constructor(private readonly actions: BenchActions) {}

  move(point: ToolPoint): void {
    const found = this.under(point);
    if (!found || this.first) {
      this.showMeeting(point);
      return;
    }
    const { item, at } = found;
    const shaped = this.shaped(item, at);
    const outline = typeof shaped === 'string' ? null : transformPath(outlineOf(shaped), item.matrix);
    this.actions.showDraft({ outline, dots: [applyTo(item.matrix, at.x, at.y)] });
  }

  down(point: ToolPoint): void {
    if (point.button !== 0) return;
    const found = this.first ? null : this.under(point);
    if (!found) {
      this.meet(point);
      return;
    }
    const shape = this.shaped(found.item, found.at);
    if (typeof shape === 'string') {
      toast.error(shape);
      return;
    }
    const { corner, cornerSize } = this.actions.get().toolOptions;
    const name =
      corner === 'round'
        ? t('round a corner to {{cornerSize}} mm', { cornerSize })
        : t('cut a corner off by {{cornerSize}} mm', { cornerSize });
    this.actions.showDraft(null);
    this.actions.edit(name, (job) => replaceShape(job, found.item.id, [shape], newId));
  }

  up(): void {
    // The press did it.
  }

  cancel(): boolean {
    const was = this.first !== null;
    this.first = null;
    this.actions.showDraft(null);
    return was;
  }

  /** Shapes every corner of the selection that has room for it, and says of how many that was not so. */
  shapeAll(): void {
    const { selection, toolOptions } = this.actions.get();
    const { corner, cornerSize } = toolOptions;
    let [done, left] = [0, 0];
    const job = jobOf(this.actions.get()).drawing.items.reduce((before, item) => {
      if (!selection.has(item.id) || item.shape.kind === 'picture') return before;
      const shape = cornersOf(sharpOutlineOf(item.shape)).reduce<Shape>((sofar, place) => {
        const shaped = this.shaped({ ...item, shape: sofar }, place);
        if (typeof shaped === 'string') left++;
        else done++;
        return typeof shaped === 'string' ? sofar : shaped;
      }, item.shape);
      return shape === item.shape ? before : replaceShape(before, item.id, [shape], newId);
    }, jobOf(this.actions.get()));
    this.actions.edit(
      corner === 'round'
        ? t('round corners to {{cornerSize}} mm', { cornerSize })
        : t('cut corners off by {{cornerSize}} mm', { cornerSize }),
      () => job,
    );
    if (left > 0)
      toast.message(
        t('{{done}} corners shaped; at {{left}} points the line goes straight on or is too short.', { done, left }),
      );
  }

  /** The straight line under the pointer, where two are to be led to each other. */
  private lineUnder({ free }: ToolPoint): MeetingLine | null {
    const item = itemUnder(this.actions, free, linePx);
    const place = item && item.shape.kind !== 'picture' ? nearestPlace(sharp(item), free.x, free.y) : null;
    return item && place && place.distance <= linePx / this.actions.get().view.scale ? { id: item.id, place } : null;
  }

  private met(second: MeetingLine): JobDocument | string {
    const { corner: kind, cornerSize: size } = this.actions.get().toolOptions;
    return this.first ? meetLines(jobOf(this.actions.get()), this.first, second, { kind, size }, newId) : '';
  }

  private showMeeting(point: ToolPoint): void {
    const second = this.first && this.lineUnder(point);
    const job = second ? this.met(second) : null;
    const made = job && typeof job !== 'string' ? job.drawing.items.find(({ id }) => id === this.first?.id) : null;
    this.actions.showDraft(made ? { outline: pathOf(made) } : null);
  }

  private meet(point: ToolPoint): void {
    const line = this.lineUnder(point);
    if (!line) return;
    if (!this.first) {
      this.first = line;
      this.actions.select([line.id]);
      toast.message(t('Now click the line that it is to meet.'));
      return;
    }
    const job = this.met(line);
    const { id } = this.first;
    this.cancel();
    if (typeof job === 'string') {
      toast.error(job);
      return;
    }
    this.actions.edit(t('lead two lines to each other'), () => job);
    this.actions.select([id]);
  }

  /** The item whose corner is near, and the corner in the frame of its shape. */
  private under({ free }: ToolPoint): { item: Item; at: Point } | null {
    const item = itemUnder(this.actions, free, reachPx);
    const back = item && invert(item.matrix);
    if (!item || !back || item.shape.kind === 'picture') return null;
    const here = applyTo(back, free.x, free.y);
    const near = reachOnBed(this.actions.get(), reachPx) / meanScale(item.matrix);
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
  private shaped(item: Item, place: Point): Shape | string {
    const { corner, cornerSize } = this.actions.get().toolOptions;
    const scale = meanScale(item.matrix);
    const path = sharpOutlineOf(item.shape);
    const others = (item.shape.kind === 'path' ? (item.shape.corners ?? []) : []).filter(
      ({ x, y }) => x !== place.x || y !== place.y,
    );
    const size = cornerSize / scale;
    if (size === 0) return { kind: 'path', path, ...(others.length > 0 ? { corners: others } : {}) };
    const most = largestCorner(shapeCorners(path, others), place, corner);
    if (most === 0) return t('There is no corner to shape there: the line goes straight on.');
    if (size > most + 1e-6)
      return t('The corner can be {{most}} mm at most; its edges are too short for more.', {
        most: (most * scale).toFixed(2),
      });
    const shaped: Corner = { ...place, kind: corner, size };
    return { kind: 'path', path, corners: [...others, shaped] };
  }
}

/** An item without what was done to its corners: what places on it are counted by. */
function sharp(item: Item): Item {
  return item.shape.kind === 'path' && item.shape.corners
    ? { ...item, shape: { kind: 'path', path: item.shape.path } }
    : item;
}

function cornersOf(path: Path): Point[] {
  return nodesOf(path).flatMap(({ nodes, closed }) =>
    (closed ? nodes : nodes.slice(1, -1)).map(({ x, y }) => ({ x, y })),
  );
}
