import type { Shape } from '@lambent/core/document';
import { centreThrough, type Point } from '@lambent/core/geometry';
import { t } from '../../words/words.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { addShape, outlineOfShape } from './draw.ts';
import type { Tool, ToolPoint } from './tool.ts';

/** Draws an arc: its start, its end, then any point it goes through, its radius, or how far it rises over its ends. */
export class ArcTool implements Tool {
  readonly name = 'arc';
  readonly snaps = true;
  private points: Point[] = [];
  private to: ToolPoint | null = null;
  private typed: { readonly name: 'radius' | 'rise'; readonly value: number } | null = null;

  constructor(private readonly actions: BenchActions) {}

  get from(): Point | null {
    return this.points.at(-1) ?? null;
  }

  down(point: ToolPoint): void {
    if (point.button !== 0) return;
    this.to = point;
    if (this.points.length === 2) {
      this.finish();
      return;
    }
    const last = this.from;
    if (last && Math.hypot(last.x - point.bed.x, last.y - point.bed.y) < 1e-6) return;
    this.points.push(point.bed);
    this.actions.measureFrom(point.bed);
    this.show();
  }

  move(point: ToolPoint): void {
    this.to = point;
    this.show();
  }

  up(): void {
    // Each point is placed when the button goes down.
  }

  cancel(): boolean {
    const was = this.points.length > 0;
    this.points = [];
    this.typed = null;
    this.actions.showDraft(null);
    return was;
  }

  type(field: string, value: number): string | undefined {
    const [a, b] = this.points;
    if (!(value > 0)) return field === 'rise' ? t('It rises by more than 0.') : t('A radius is more than 0.');
    if (value > 100_000) return t('That is larger than any bed.');
    const least = b ? Math.hypot(b.x - a.x, b.y - a.y) / 2 : 0;
    if (field === 'radius' && value < least - 1e-9)
      return t('The ends are {{least}} mm apart: at least {{least2}} mm.', {
        least: (2 * least).toFixed(2),
        least2: least.toFixed(2),
      });
    this.typed = field === 'rise' ? { name: 'rise', value } : { name: 'radius', value: Math.max(value, least) };
    this.show();
    return undefined;
  }

  finish(): void {
    const shape = this.shape();
    if (!shape) return;
    this.cancel();
    addShape(this.actions, shape, shape.kind === 'arc' ? 'arc' : 'line');
  }

  private shape(): Shape | null {
    const [a, b] = this.points;
    const through = this.to?.bed;
    if (!a || !b || !through) return null;
    if (this.typed === null) return arcThrough(a, through, b);
    const { name, value } = this.typed;
    return name === 'rise' ? arcOfRise(a, b, through, value) : arcOfRadius(a, b, through, value);
  }

  private show(): void {
    const [a, b] = this.points;
    const { to } = this;
    if (!a || !to) return;
    const shape = this.shape();
    const field = (name: 'radius' | 'rise', label: string, value: number) => ({
      name,
      label,
      kind: 'length' as const,
      value,
      typed: this.typed?.name === name,
    });
    const fields =
      shape?.kind === 'arc' ? [field('radius', 'R', shape.radius), field('rise', t('Rise'), riseOf(shape))] : [];
    const chord: Shape = {
      kind: 'slot',
      x1: a.x,
      y1: a.y,
      x2: to.bed.x,
      y2: to.bed.y,
      width: 0,
    };
    this.actions.showDraft({ outline: outlineOfShape(b ? shape : chord), dots: b ? [a, b] : [a], at: to.bed, fields });
  }
}

/** The arc from one point through another to a third; null when they stand in a line. */
function arcThrough(a: Point, through: Point, b: Point): Shape | null {
  const centre = centreThrough(a, through, b);
  if (!centre) return null;
  // Clockwise on the screen, where y points down, when the three turn to the right.
  const turn = (through.x - a.x) * (b.y - through.y) - (through.y - a.y) * (b.x - through.x);
  return arcAbout(centre, a, b, turn > 0);
}

/** The arc of a radius between two points that bends to the side of a third. */
function arcOfRadius(a: Point, b: Point, towards: Point, radius: number): Shape | null {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const length = Math.hypot(dx, dy);
  const rise = Math.sqrt(Math.max(0, radius * radius - (length * length) / 4));
  const side = Math.sign(dx * (towards.y - a.y) - dy * (towards.x - a.x)) || 1;
  // Beyond half a circle when the pointer is further off than the radius.
  const off = Math.abs(dx * (towards.y - a.y) - dy * (towards.x - a.x)) / length;
  const far = off > radius ? -1 : 1;
  const [nx, ny] = [(-dy / length) * side, (dx / length) * side];
  const centre = { x: (a.x + b.x) / 2 - nx * rise * far, y: (a.y + b.y) / 2 - ny * rise * far };
  return arcAbout(centre, a, b, side < 0);
}

/** The arc between two points that rises so far over the line between them, to the side of a third. */
function arcOfRise(a: Point, b: Point, towards: Point, rise: number): Shape | null {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const length = Math.hypot(dx, dy);
  const side = Math.sign(dx * (towards.y - a.y) - dy * (towards.x - a.x)) || 1;
  const top = { x: (a.x + b.x) / 2 - (dy / length) * side * rise, y: (a.y + b.y) / 2 + (dx / length) * side * rise };
  return arcThrough(a, top, b);
}

/** How far an arc rises over the line between its ends. */
function riseOf({ radius, sweep }: { readonly radius: number; readonly sweep: number }): number {
  return radius * (1 - Math.cos((Math.abs(sweep) * Math.PI) / 360));
}

function arcAbout({ x: cx, y: cy }: Point, a: Point, b: Point, clockwise: boolean): Shape {
  const degrees = (point: Point) => (Math.atan2(point.y - cy, point.x - cx) * 180) / Math.PI;
  const from = degrees(a);
  const turn = (((degrees(b) - from) % 360) + 360) % 360;
  return { kind: 'arc', cx, cy, radius: Math.hypot(a.x - cx, a.y - cy), from, sweep: clockwise ? turn : turn - 360 };
}
