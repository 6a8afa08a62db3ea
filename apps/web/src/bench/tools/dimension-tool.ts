import {
  besideAt,
  type DimensionEnd,
  type DimensionMark,
  endAt,
  pathOf,
  placeDimension,
  pointOfEnd,
} from '@lambent/core/document';
import { nearestPlace, setDimension } from '@lambent/core/edits';
import { isLine, type Point, subpathsOf } from '@lambent/core/geometry';
import { itemsNear } from '@lambent/core/picking';
import { t } from '../../words/words.ts';
import { newId } from '../new-id.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import { itemUnder } from './draw.ts';
import type { Tool, ToolPoint } from './tool.ts';

const linePx = 7;

type Doing =
  | { kind: 'nothing' }
  | { kind: 'from'; from: DimensionEnd; at: Point }
  /** Both ends are there; the pointer says how far beside them the line is. */
  | { kind: 'beside'; from: DimensionEnd; to: DimensionEnd };

/** Puts measures down: two points, or one edge, then how far beside it the figure stands. */
export class DimensionTool implements Tool {
  readonly name = 'dimension';
  readonly snaps = true;
  private doing: Doing = { kind: 'nothing' };

  constructor(private readonly actions: BenchActions) {}

  get from(): Point | null {
    return this.doing.kind === 'from' ? this.doing.at : null;
  }

  down(point: ToolPoint): void {
    if (point.button !== 0) return;
    const { doing, actions } = this;
    if (doing.kind === 'beside') {
      const mark = this.mark(doing.from, doing.to, point.free);
      this.cancel();
      actions.edit(t('put a dimension mark'), (job) => setDimension(job, { ...mark, id: newId() }));
      return;
    }
    if (doing.kind === 'nothing') {
      const edge = this.edgeUnder(point);
      if (edge) this.doing = { kind: 'beside', ...edge };
      else this.doing = { kind: 'from', from: this.endUnder(point.bed), at: point.bed };
    } else {
      const to = this.endUnder(point.bed);
      const far = Math.hypot(point.bed.x - doing.at.x, point.bed.y - doing.at.y) > 1e-6;
      if (far) this.doing = { kind: 'beside', from: doing.from, to };
    }
    this.move(point);
  }

  move({ bed, free }: ToolPoint): void {
    const { doing } = this;
    if (doing.kind === 'nothing') this.actions.showDraft(null);
    else if (doing.kind === 'from') {
      const to: DimensionEnd = { kind: 'point', ...bed };
      this.actions.showDraft({ dimension: { ...this.mark(doing.from, to, bed), beside: 0 }, dots: [doing.at] });
    } else this.actions.showDraft({ dimension: this.mark(doing.from, doing.to, free) });
  }

  up(): void {
    // Presses do it.
  }

  cancel(): boolean {
    const was = this.doing.kind !== 'nothing';
    this.doing = { kind: 'nothing' };
    this.actions.showDraft(null);
    return was;
  }

  private mark(from: DimensionEnd, to: DimensionEnd, through: Point): Omit<DimensionMark, 'id'> {
    const { drawing } = jobOf(this.actions.get());
    const { dimension: axis } = this.actions.get().toolOptions;
    const [a, b] = [pointOfEnd(drawing, from), pointOfEnd(drawing, to)];
    return { from, to, axis, beside: a && b ? besideAt(a, b, axis, through) : 0 };
  }

  private endUnder({ x, y }: Point): DimensionEnd {
    const { drawing } = jobOf(this.actions.get());
    return endAt(itemsNear(drawing, { minX: x - 1, minY: y - 1, maxX: x + 1, maxY: y + 1 }), { x, y });
  }

  /** The straight edge that is clicked away from its ends, middle and crossings. */
  private edgeUnder({ free, snap }: ToolPoint): { from: DimensionEnd; to: DimensionEnd } | null {
    if (snap && snap.kind !== 'line' && snap.kind !== 'grid') return null;
    const item = itemUnder(this.actions, free, linePx);
    const place = item && nearestPlace(item, free.x, free.y);
    if (!item || !place || place.distance > linePx / this.actions.get().view.scale) return null;
    const i = Math.floor(place.at);
    const segment = [...subpathsOf(pathOf(item))][place.subpath]?.segments[i];
    if (!segment || !isLine(segment)) return null;
    const end = (position: number): DimensionEnd => ({
      kind: 'outline',
      itemId: item.id,
      subpath: place.subpath,
      at: position,
    });
    const edge = { from: end(i), to: end(i + 1) };
    return placeDimension(jobOf(this.actions.get()).drawing, { ...edge, axis: 'straight', beside: 0 }) ? edge : null;
  }
}
