import type { ProgramWays } from '@lambent/core/formats';
import { t } from '../../../../words/words.ts';
import type { BenchActions } from '../../../state/bench-state.ts';
import { reachOnBed } from '../../../state/hand.ts';
import type { Tool, ToolPoint } from '../../../tools/tool.ts';
import { nearestMove } from './program-places.ts';

const reachPx = 14;

/** Chooses on the bed where a run goes on: a click takes the nearest stretch that burns. */
export class BeginningTool implements Tool {
  readonly name = 'place';
  readonly snaps = false;
  readonly from = null;
  readonly words = t('Click where it goes on');

  /** @param take takes the move that was chosen */
  constructor(
    private readonly actions: BenchActions,
    private readonly ways: ProgramWays,
    private readonly take: (move: number) => void,
  ) {}

  down({ button, free }: ToolPoint): void {
    if (button !== 0) return;
    const move = nearestMove(this.ways, free, reachOnBed(this.actions.get(), reachPx));
    if (move !== null) this.take(move);
  }

  move(): void {}

  up(): void {}

  cancel(): boolean {
    return false;
  }
}
