import type { Point } from '@lambent/core/geometry';
import { t } from '../../words/words.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { PickTool } from './pick-tool.ts';
import type { Tool, ToolPoint } from './tool.ts';

const wanted = 4;

/** What is told of corners that are being marked: points on the bed in mm, the pointer last while some are missing. */
export interface CornersTaker {
  readonly sketch: (points: readonly Point[] | null) => void;
  readonly take: (points: readonly Point[]) => void;
}

/** Asks for four corners, each with a click. */
export class CornersTool implements Tool {
  readonly name = 'place';
  readonly snaps = false;
  readonly from = null;
  readonly words = t('Click the four corners of something flat whose size you know');
  private points: Point[] = [];

  constructor(
    private readonly actions: BenchActions,
    private readonly taker: CornersTaker,
  ) {}

  down({ button, free }: ToolPoint): void {
    if (button !== 0) return;
    this.points = [...this.points, free];
    if (this.points.length < wanted) {
      this.taker.sketch(this.points);
      return;
    }
    this.actions.takeTool(new PickTool(this.actions));
    this.taker.take(this.points);
  }

  move({ free }: ToolPoint): void {
    if (this.points.length > 0) this.taker.sketch([...this.points, free]);
  }

  up(): void {
    // The press marks.
  }

  cancel(): boolean {
    const was = this.points.length > 0;
    this.points = [];
    this.taker.sketch(null);
    return was;
  }
}
