import { lineSegment, type Path, type Point, pathOfSubpaths } from '@lambent/core/geometry';
import { t } from '../../words/words.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { addShape, isDrag } from './draw.ts';
import { angleTo, pointAtAngle, stepped } from './recipes.ts';
import type { Tool, ToolPoint } from './tool.ts';

/** How near, in pixels, a click must be to the first point to close the line. */
const closePx = 8;

/** Draws straight lines from point to point: Enter or a second click on the last ends it, a click on the first closes it. */
export class LineTool implements Tool {
  readonly name = 'line';
  readonly snaps = true;
  private points: Point[] = [];
  private to: ToolPoint | null = null;
  private pressed: Point | null = null;
  private typed: { length?: number; angle?: number } = {};

  constructor(private readonly actions: BenchActions) {}

  get from(): Point | null {
    return this.points.at(-1) ?? null;
  }

  down(point: ToolPoint): void {
    if (point.button !== 0) return;
    this.to = point;
    this.pressed = point.screen;
    this.place(this.next());
  }

  move(point: ToolPoint): void {
    this.to = point;
    this.show();
  }

  up(point: ToolPoint): void {
    // A drag draws a single line.
    const dragged = this.pressed !== null && this.points.length === 1 && isDrag(this.pressed, point.screen);
    this.pressed = null;
    if (!dragged) return;
    this.to = point;
    this.place(this.next());
    this.finish();
  }

  cancel(): boolean {
    const was = this.points.length > 0;
    this.points = [];
    this.typed = {};
    this.actions.showDraft(null);
    return was;
  }

  type(field: string, value: number): string | undefined {
    if (field === 'length' && !(value > 0)) return t('A length is more than 0.');
    if (field === 'length' && value > 10_000) return t('That is longer than any bed.');
    this.typed = { ...this.typed, [field]: value };
    this.show();
    return undefined;
  }

  /** Enter places the point that was typed; with nothing typed it ends the line. */
  finish(): void {
    if (Object.keys(this.typed).length > 0) {
      this.place(this.next());
      return;
    }
    this.end(false);
  }

  key(key: string): boolean {
    if (key !== 'backspace' || this.points.length === 0) return false;
    this.points.pop();
    this.show();
    return true;
  }

  private next(): Point {
    const last = this.from;
    const to = this.to?.bed ?? last ?? { x: 0, y: 0 };
    if (!last) return to;
    const { angleStep } = this.actions.get().toolOptions;
    const free = angleTo(last, to);
    const angle = this.typed.angle ?? (this.to?.shift ? stepped(free, angleStep) : free);
    if (this.typed.angle === undefined && this.typed.length === undefined && !this.to?.shift) return to;
    return pointAtAngle(last, this.typed.length ?? Math.hypot(to.x - last.x, to.y - last.y), angle);
  }

  private place(point: Point): void {
    const [first] = this.points;
    const last = this.from;
    const { scale } = this.actions.get().view;
    const near = (other: Point | null | undefined) =>
      other && Math.hypot(other.x - point.x, other.y - point.y) * scale < closePx;
    const typed = Object.keys(this.typed).length > 0;
    if (this.points.length > 1 && near(first) && !typed) {
      this.end(true);
      return;
    }
    if (near(last) && !typed) {
      this.end(false);
      return;
    }
    this.points.push(point);
    this.typed = {};
    this.actions.measureFrom(point);
    this.show();
  }

  private end(closed: boolean): void {
    const { points, actions } = this;
    this.cancel();
    if (points.length < 2) return;
    addShape(actions, { kind: 'path', path: through(points, closed) }, closed ? t('closed line') : 'line');
  }

  private show(): void {
    const last = this.from;
    if (!last || !this.to) return;
    const next = this.next();
    this.actions.showDraft({
      outline: through([...this.points, next], false),
      dots: this.points,
      at: next,
      fields: [
        {
          name: 'length',
          label: 'L',
          kind: 'length',
          value: Math.hypot(next.x - last.x, next.y - last.y),
          typed: this.typed.length !== undefined,
        },
        { name: 'angle', label: '∠', kind: 'angle', value: angleTo(last, next), typed: this.typed.angle !== undefined },
      ],
    });
  }
}

function through(points: readonly Point[], closed: boolean): Path {
  const segments = points.slice(1).map((point, i) => lineSegment(points[i].x, points[i].y, point.x, point.y));
  const [first, last] = [points[0], points[points.length - 1]];
  if (closed) segments.push(lineSegment(last.x, last.y, first.x, first.y));
  return pathOfSubpaths([{ segments, closed }]);
}
