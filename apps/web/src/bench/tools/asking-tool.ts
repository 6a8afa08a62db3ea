import { pathOf } from '@lambent/core/document';
import { nearestPlace, numberItem, setStart } from '@lambent/core/edits';
import { subpathsOf } from '@lambent/core/geometry';
import { whyFilled } from '@lambent/core/plan';
import { toast } from 'sonner';
import { t } from '../../words/words.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { itemUnder } from './draw.ts';
import type { Tool, ToolName, ToolPoint } from './tool.ts';

const reachPx = 8;

/** Clicks that say something of what is burnt: why a point is filled, in which order items burn, where outlines start. */
export class AskingTool implements Tool {
  readonly from = null;

  constructor(
    private readonly actions: BenchActions,
    readonly name: Extract<ToolName, 'why' | 'number' | 'start'>,
  ) {}

  /** A start is chosen where the pointer is caught: at a corner, a middle, a crossing. */
  get snaps(): boolean {
    return this.name === 'start';
  }

  down(point: ToolPoint): void {
    if (point.button !== 0) return;
    if (this.name === 'why') this.ask(point);
    else if (this.name === 'number') this.number(point);
    else this.start(point);
  }

  move({ free }: ToolPoint): void {
    if (this.name === 'why') return;
    const item = itemUnder(this.actions, free, reachPx);
    this.actions.hover(item ? [item.id] : []);
    this.actions.pointOut(item ? [item.id] : []);
  }

  up(): void {
    // Presses do it.
  }

  cancel(): boolean {
    const was = this.actions.get().asked !== null;
    this.actions.showAsked(null);
    this.actions.pointOut([]);
    return was;
  }

  private ask({ free }: ToolPoint): void {
    const { prepared } = this.actions.get();
    const { x, y } = free;
    const answers = whyFilled(prepared, x, y);
    this.actions.showAsked({ x, y, answers });
    this.actions.pointOut(answers.flatMap(({ around }) => around.map(({ item }) => item.id)));
  }

  private number({ free }: ToolPoint): void {
    const item = itemUnder(this.actions, free, reachPx);
    if (item) this.actions.edit(t('number an item'), (job) => numberItem(job, item.id));
  }

  private start({ bed, free }: ToolPoint): void {
    const item = itemUnder(this.actions, free, reachPx);
    const place = item && nearestPlace(item, bed.x, bed.y);
    if (!item || !place) return;
    const line = [...subpathsOf(pathOf(item))][place.subpath];
    if (!line?.closed) {
      toast.message(t('Only a closed outline can start anywhere; an open line starts at one of its ends.'));
      return;
    }
    this.actions.edit(t('choose where an outline starts'), (job) =>
      setStart(job, { itemId: item.id, subpath: place.subpath, at: place.at }),
    );
  }
}
