import type { Point } from '@lambent/core/geometry';
import type { BenchActions } from '../state/bench-state.ts';
import { PickTool } from './pick-tool.ts';
import type { Tool, ToolPoint } from './tool.ts';

/** Asks for a point of the bed, once. */
export class PlaceTool implements Tool {
  readonly name = 'place';
  readonly snaps = false;
  readonly from = null;

  constructor(
    private readonly actions: BenchActions,
    /** What the click is to say. */
    readonly words: string,
    private readonly take: (point: Point) => void,
  ) {}

  down({ button, free }: ToolPoint): void {
    if (button !== 0) return;
    this.actions.takeTool(new PickTool(this.actions));
    this.take(free);
  }

  move(): void {
    // Nothing follows the pointer.
  }

  up(): void {
    // The press does it.
  }

  cancel(): boolean {
    return false;
  }
}

/** Takes a tool to hand that asks for a point of the bed; with *Done* or Esc nothing is taken. */
export function askForPlace(actions: BenchActions, words: string, take: (point: Point) => void): void {
  actions.get().tool?.cancel();
  actions.takeTool(new PlaceTool(actions, words, take));
}
