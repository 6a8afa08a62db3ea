import { type Item, sharpOutlineOf } from '@lambent/core/document';
import { nearestPlace, replaceShape } from '@lambent/core/edits';
import {
  addNode,
  applyTo,
  breakAt,
  cornerNodes,
  deleteNodes,
  invert,
  type Matrix,
  moveHandle,
  moveNode,
  type NodeLine,
  type NodePlace,
  nodesOf,
  type Point,
  pathOfNodes,
  smoothNodes,
  straightenEdges,
  transformPath,
} from '@lambent/core/geometry';
import { t } from '../../words/words.ts';
import { newId } from '../new-id.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import { reachOnBed } from '../state/hand.ts';
import { itemUnder } from './draw.ts';
import type { Tool, ToolPoint } from './tool.ts';

const reachPx = 7;

type Held = { place: NodePlace; side: 'before' | 'after' | null };

/** Drags the points of an outline and their handles; a double click adds a point, Del takes points away. */
export class PointsTool implements Tool {
  readonly name = 'points';
  readonly from = null;
  private chosen: NodePlace[] = [];
  private held: Held | null = null;
  private moved: readonly NodeLine[] | null = null;
  private itemId: string | null = null;

  constructor(private readonly actions: BenchActions) {}

  /** Only what is being dragged is caught; presses are on points as they are. */
  get snaps(): boolean {
    return this.held !== null;
  }

  /** The item whose points are shown, when just one is selected. */
  get item(): Item | null {
    const { selection } = this.actions.get();
    if (selection.size !== 1) return null;
    const [id] = selection;
    const item = jobOf(this.actions.get()).drawing.items.find((known) => known.id === id);
    if (!item || item.shape.kind === 'picture') return null;
    if (item.id !== this.itemId) {
      this.itemId = item.id;
      this.chosen = [];
    }
    return item;
  }

  /** The points in bed mm, as they are now while one is dragged. */
  get lines(): readonly NodeLine[] {
    return this.moved ?? this.resting;
  }

  /** The points in bed mm, as they are in the drawing. */
  private get resting(): readonly NodeLine[] {
    const { item } = this;
    return item ? nodesOf(transformPath(sharpOutlineOf(item.shape), item.matrix)) : [];
  }

  get selected(): readonly NodePlace[] {
    return this.chosen;
  }

  down(point: ToolPoint): void {
    if (point.button !== 0) return;
    const hit = this.hit(point);
    if (hit) {
      const known = this.chosen.some((place) => same(place, hit.place));
      if (hit.side === null) {
        if (point.shift)
          this.chosen = known ? this.chosen.filter((p) => !same(p, hit.place)) : [...this.chosen, hit.place];
        else if (!known) this.chosen = [hit.place];
      }
      this.held = hit;
      this.show();
      return;
    }
    const { item } = this;
    const reach = reachOnBed(this.actions.get(), reachPx);
    const place = item && nearestPlace(item, point.free.x, point.free.y);
    if (item && place && place.distance <= reach) {
      if (point.clicks > 1) {
        const node = Math.floor(place.at);
        this.change(t('add a point'), (lines) => addNode(lines, { line: place.subpath, node }, place.at - node));
        this.chosen = [{ line: place.subpath, node: node + 1 }];
        this.show();
      }
      return;
    }
    const other = itemUnder(this.actions, point.free, reachPx);
    this.actions.select(other ? [other.id] : []);
    this.chosen = [];
    this.show();
  }

  move(point: ToolPoint): void {
    const { held } = this;
    if (!held) return;
    const before = this.resting;
    const node = before[held.place.line]?.nodes[held.place.node];
    if (!node) return;
    if (held.side) this.moved = moveHandle(before, held.place, held.side, point.bed);
    else {
      let [dx, dy] = [point.bed.x - node.x, point.bed.y - node.y];
      if (point.shift && Math.abs(dx) > Math.abs(dy)) dy = 0;
      else if (point.shift) dx = 0;
      this.moved = this.chosen.reduce<readonly NodeLine[]>((lines, place) => {
        const spot = before[place.line]?.nodes[place.node];
        return spot ? moveNode(lines, place, spot.x + dx, spot.y + dy) : lines;
      }, before);
    }
    this.show();
  }

  up(): void {
    const { moved, held } = this;
    this.held = null;
    this.moved = null;
    if (moved && held) this.change(held.side ? t('bend a curve') : t('move a point'), () => moved);
    this.show();
  }

  cancel(): boolean {
    const was = this.moved !== null || this.chosen.length > 0;
    this.moved = null;
    this.held = null;
    this.chosen = [];
    this.show();
    return was;
  }

  key(key: string): boolean {
    if ((key !== 'delete' && key !== 'backspace') || this.chosen.length === 0) return false;
    this.remove();
    return true;
  }

  remove(): void {
    const places = this.chosen;
    this.chosen = [];
    this.change(
      places.length === 1 ? t('delete a point') : t('delete {{places}} points', { places: places.length }),
      (lines) => deleteNodes(lines, places),
    );
  }

  smooth(): void {
    this.change(t('make points smooth'), (lines) => smoothNodes(lines, this.chosen));
  }

  sharpen(): void {
    this.change(t('make points corners'), (lines) => cornerNodes(lines, this.chosen));
  }

  straighten(): void {
    this.change('straighten', (lines) => straightenEdges(lines, this.chosen));
  }

  break(): void {
    const [place] = this.chosen;
    if (!place) return;
    this.chosen = [];
    this.change(t('break a line'), (lines) => breakAt(lines, place));
  }

  /** Puts the chosen points in a line with the first of them. */
  align(axis: 'x' | 'y'): void {
    const [first] = this.chosen;
    const to = first && this.lines[first.line]?.nodes[first.node];
    if (!to) return;
    this.change(t('align points'), (lines) =>
      this.chosen.reduce<readonly NodeLine[]>((done, place) => {
        const node = done[place.line].nodes[place.node];
        return moveNode(done, place, axis === 'x' ? to.x : node.x, axis === 'y' ? to.y : node.y);
      }, lines),
    );
  }

  /** Moves the one chosen point to a place typed, in bed mm. */
  placeAt(x: number, y: number): void {
    const [place] = this.chosen;
    if (place) this.change(t('move a point'), (lines) => moveNode(lines, place, x, y));
  }

  private change(name: string, change: (lines: readonly NodeLine[]) => readonly NodeLine[]): void {
    const { item } = this;
    const back = item && invert(item.matrix);
    if (!item || !back) return;
    const lines = change(this.resting);
    const path = transformPath(pathOfNodes(lines), back);
    // Corners that were shaped stay with their points; those whose point went are given up.
    const corners = item.shape.kind === 'path' ? movedCorners(item, lines, back) : [];
    const shapes =
      path.verbs.length < 2 ? [] : [{ kind: 'path' as const, path, ...(corners.length > 0 ? { corners } : {}) }];
    this.actions.edit(name, (job) => replaceShape(job, item.id, shapes, newId));
    this.show();
  }

  private hit({ free }: ToolPoint): Held | null {
    const reach = reachOnBed(this.actions.get(), reachPx);
    let best: (Held & { distance: number }) | null = null;
    const offer = (p: Point | null, held: Held) => {
      const distance = p ? Math.hypot(p.x - free.x, p.y - free.y) : Infinity;
      if (distance <= reach && (!best || distance < best.distance)) best = { ...held, distance };
    };
    this.lines.forEach(({ nodes }, line) => {
      nodes.forEach((node, i) => {
        const place = { line, node: i };
        if (this.chosen.some((known) => same(known, place))) {
          offer(node.before, { place, side: 'before' });
          offer(node.after, { place, side: 'after' });
        }
        offer(node, { place, side: null });
      });
    });
    return best;
  }

  private show(): void {
    const { moved } = this;
    this.actions.showDraft({ outline: moved ? pathOfNodes(moved) : null });
  }
}

function movedCorners(item: Item, lines: readonly NodeLine[], back: Matrix) {
  if (item.shape.kind !== 'path' || !item.shape.corners) return [];
  const before = nodesOf(item.shape.path).flatMap(({ nodes }) => nodes);
  const after = lines.flatMap(({ nodes }) => nodes).map(({ x, y }) => applyTo(back, x, y));
  const near = (p: Point, q: Point) => Math.hypot(p.x - q.x, p.y - q.y) < 1e-4;
  return item.shape.corners.flatMap((corner) => {
    const i = before.findIndex((node) => near(node, corner));
    if (before.length === after.length && i >= 0) return [{ ...corner, x: after[i].x, y: after[i].y }];
    const stays = after.find((node) => near(node, corner));
    return stays ? [corner] : [];
  });
}

/** Whether two places are the same node. */
export function same(a: NodePlace, b: NodePlace): boolean {
  return a.line === b.line && a.node === b.node;
}
