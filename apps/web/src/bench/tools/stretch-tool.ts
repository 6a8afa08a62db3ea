import { type Item, type JobDocument, pathOf } from '@lambent/core/document';
import {
  cutsOn,
  extendTo,
  nearestPlace,
  type OutlinePlace,
  partBetweenCuts,
  partOfSubpath,
  splitAt,
  trimAt,
} from '@lambent/core/edits';
import { pathOfSubpaths, subpathsOf } from '@lambent/core/geometry';
import { t } from '../../words/words.ts';
import { newId } from '../new-id.ts';
import type { BenchActions, BenchState } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import { reachOnBed } from '../state/hand.ts';
import { itemUnder } from './draw.ts';
import type { Tool, ToolPoint } from './tool.ts';

const reachPx = 8;

/** Takes away the stretch of line under the pointer between two crossings, lengthens a line to the next, or splits it. */
export class StretchTool implements Tool {
  readonly name = 'stretch';
  readonly from = null;

  constructor(private readonly actions: BenchActions) {}

  /** A split is made where the pointer is caught: at a crossing, a middle, a point. */
  get snaps(): boolean {
    return this.actions.get().toolOptions.stretch === 'split';
  }

  move(point: ToolPoint): void {
    const found = this.under(point);
    if (!found) {
      this.actions.showDraft(null);
      return;
    }
    const { item, place } = found;
    const { stretch } = this.actions.get().toolOptions;
    if (stretch === 'trim') this.actions.showDraft({ gone: trimmed(this.actions.get(), item, place) });
    else if (stretch === 'extend') {
      const longer = this.changed(item, place);
      const shown = longer.drawing.items.find(({ id }) => id === item.id);
      this.actions.showDraft({ outline: shown && shown !== item ? pathOf(shown) : null });
    } else this.actions.showDraft({ dots: [point.bed], at: point.bed });
  }

  down(point: ToolPoint): void {
    if (point.button !== 0) return;
    const found = this.under(point);
    if (!found) return;
    const { item, place } = found;
    const { stretch } = this.actions.get().toolOptions;
    const names = { trim: 'trim', extend: t('lengthen a line'), split: t('split a line') };
    const after = this.changed(item, place);
    this.actions.showDraft(null);
    this.actions.edit(names[stretch], () => after);
  }

  up(): void {
    // The press did it.
  }

  cancel(): boolean {
    this.actions.showDraft(null);
    return false;
  }

  private changed(item: Item, place: OutlinePlace): JobDocument {
    const job = jobOf(this.actions.get());
    const { stretch } = this.actions.get().toolOptions;
    if (stretch === 'trim') return trimAt(job, item.id, place, newId, passedBy(this.actions.get(), item));
    if (stretch === 'extend') return extendTo(job, item.id, place, newId);
    return splitAt(job, item.id, place, newId);
  }

  private under({ free, bed }: ToolPoint): { item: Item; place: OutlinePlace } | null {
    const item = itemUnder(this.actions, free, reachPx);
    if (!item || item.shape.kind === 'picture') return null;
    const point = this.snaps ? bed : free;
    const place = nearestPlace(item, point.x, point.y);
    return place && place.distance <= reachOnBed(this.actions.get(), reachPx) ? { item, place } : null;
  }
}

/** The items that do not cut another, by id: a guide is no edge, but of other guides. */
function passedBy({ prepared: { meaning } }: BenchState, { id }: Item): ReadonlySet<string> {
  const guides = meaning.layers.filter(({ operation }) => operation === 'guide' || operation === 'note');
  const ids = new Set(guides.flatMap((layer) => (meaning.placed.get(layer.id) ?? []).map(({ item }) => item.id)));
  return ids.has(id) ? new Set() : ids;
}

function trimmed(state: BenchState, item: Item, { subpath, at }: OutlinePlace) {
  const line = [...subpathsOf(pathOf(item))][subpath];
  const gone = partBetweenCuts(line, cutsOn(jobOf(state), item, subpath, passedBy(state, item)), at);
  if (gone === 'all') return pathOfSubpaths([line]);
  return pathOfSubpaths([{ segments: partOfSubpath(line, gone.from, gone.to), closed: false }]);
}
