import { boundsOf } from '@lambent/core/document';
import { nearestPlace, placeTabs } from '@lambent/core/edits';
import { tabPoints } from '@lambent/core/fit';
import type { Point } from '@lambent/core/geometry';
import { type HeldOutline, heldOutlines } from '@lambent/core/plan';
import { t } from '../../words/words.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { reachOnBed } from '../state/hand.ts';
import { emptyDraft, type Tool, type ToolPoint } from './tool.ts';

const reachPx = 8;

/** A tab that is held by the pointer, and the others of its outline. */
interface Grabbed {
  readonly outline: HeldOutline;
  readonly others: readonly number[];
  readonly from: Point;
  isDragged: boolean;
}

/** Puts tabs on outlines that are cut: a click adds one or takes it away, a drag moves it along. */
export class TabsTool implements Tool {
  readonly name = 'tabs';
  readonly snaps = false;
  readonly from = null;
  private grabbed: Grabbed | null = null;

  constructor(private readonly actions: BenchActions) {}

  down({ button, free, screen }: ToolPoint): void {
    if (button !== 0) return;
    const state = this.actions.get();
    const reach = reachOnBed(state, reachPx);
    const outlines = heldOutlines(state.prepared);
    const tab = nearestTab(outlines, free, reach);
    if (tab) {
      const others = tab.outline.at.filter((_, i) => i !== tab.index);
      this.grabbed = { outline: tab.outline, others, from: screen, isDragged: false };
      return;
    }
    const outline = outlineUnder(outlines, free, reach);
    if (outline) this.put(t('add a tab'), outline.outline, [...outline.outline.at, outline.at]);
  }

  move({ free, screen }: ToolPoint): void {
    const { grabbed } = this;
    if (!grabbed) return;
    grabbed.isDragged ||= Math.hypot(screen.x - grabbed.from.x, screen.y - grabbed.from.y) > reachPx / 2;
    if (!grabbed.isDragged) return;
    const place = placeOn(grabbed.outline, free);
    if (place) this.actions.showDraft({ ...emptyDraft, dots: [place] });
  }

  up({ free }: ToolPoint): void {
    const { grabbed } = this;
    if (!grabbed) return;
    this.grabbed = null;
    this.actions.showDraft(null);
    const { outline, others, isDragged } = grabbed;
    if (!isDragged) this.put(t('take a tab away'), outline, others);
    else {
      const place = placeOn(outline, free);
      if (place) this.put(t('move a tab'), outline, [...others, place.at]);
    }
  }

  cancel(): boolean {
    const was = this.grabbed !== null;
    this.grabbed = null;
    if (was) this.actions.showDraft(null);
    return was;
  }

  private put(name: string, { item, subpath }: HeldOutline, places: readonly number[]): void {
    this.actions.edit(name, (job) => placeTabs(job, [{ itemId: item.id, subpath, at: places }]));
  }
}

/** The tab that is nearest to a point, within reach. */
function nearestTab(outlines: readonly HeldOutline[], { x, y }: Point, reach: number) {
  let best: { outline: HeldOutline; index: number; distance: number } | null = null;
  for (const outline of outlines) {
    outline.points.forEach((point, index) => {
      const distance = Math.hypot(point.x - x, point.y - y);
      if (distance <= (best?.distance ?? reach)) best = { outline, index, distance };
    });
  }
  return best as { outline: HeldOutline; index: number } | null;
}

/** The outline that passes nearest to a point, within reach, and where on it that is. */
function outlineUnder(outlines: readonly HeldOutline[], point: Point, reach: number) {
  let best: { outline: HeldOutline; at: number; distance: number } | null = null;
  for (const outline of outlines) {
    const { minX, minY, maxX, maxY } = boundsOf(outline.item);
    if (point.x < minX - reach || point.x > maxX + reach || point.y < minY - reach || point.y > maxY + reach) continue;
    const place = nearestPlace(outline.item, point.x, point.y);
    if (place?.subpath !== outline.subpath || place.distance > (best?.distance ?? reach)) continue;
    best = { outline, at: place.at, distance: place.distance };
  }
  return best as { outline: HeldOutline; at: number } | null;
}

/** The place on an outline that is nearest to a point, also on the bed; null where another outline of the item is nearer. */
function placeOn({ item, subpath }: HeldOutline, { x, y }: Point): (Point & { at: number }) | null {
  const place = nearestPlace(item, x, y);
  if (place?.subpath !== subpath) return null;
  const [point] = tabPoints(item, subpath, [place.at]);
  return point ? { ...point, at: place.at } : null;
}
