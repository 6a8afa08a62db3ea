import type { Point } from '@lambent/core/geometry';
import { isPointKind } from '@lambent/core/picking';
import type { BenchActions } from '../state/bench-state.ts';
import { isDrag, itemUnder } from './draw.ts';
import { PickTool } from './pick-tool.ts';
import type { Tool, ToolName, ToolPoint } from './tool.ts';

const reachPx = 5;
const drawing: ReadonlySet<Tool['name']> = new Set<ToolName>([
  'rectangle',
  'ellipse',
  'slot',
  'polygon',
  'line',
  'arc',
  'freehand',
]);

/**
 * Whether a press takes hold of what is selected, such as a shape that was just drawn: on its line, while a drawing tool
 * has begun nothing. Where the pointer is caught by a point, such as a corner, something new is drawn from there.
 */
export function takesHold(actions: BenchActions, { free, snap, alt }: ToolPoint): boolean {
  const { tool, selection } = actions.get();
  if (!tool || !drawing.has(tool.name) || tool.from || selection.size === 0 || alt) return false;
  if (snap && isPointKind(snap.kind)) return false;
  const item = itemUnder(actions, free, reachPx, 'line');
  return item !== null && selection.has(item.id);
}

/** Moves what is selected while a drawing tool is at hand. A press that is no drag is the drawing tool's. */
export class DrawnHold implements Tool {
  readonly name = 'pick';
  readonly snaps = false;
  private readonly pick: PickTool;
  private pressed: { readonly point: ToolPoint; readonly screen: Point } | null = null;
  private isDragged = false;

  constructor(
    actions: BenchActions,
    private readonly tool: Tool,
  ) {
    this.pick = new PickTool(actions);
  }

  get from(): null {
    return null;
  }

  down(point: ToolPoint): void {
    this.pressed = { point, screen: point.screen };
    // Its group is not opened by a second press.
    this.pick.down({ ...point, clicks: 1, shift: false, ctrl: false });
  }

  move(point: ToolPoint): void {
    if (this.pressed && isDrag(this.pressed.screen, point.screen)) this.isDragged = true;
    if (this.isDragged) this.pick.move(point);
  }

  up(point: ToolPoint): void {
    if (this.isDragged) {
      this.pick.up(point);
    } else if (this.pressed) {
      this.pick.cancel();
      this.tool.down(this.pressed.point);
      this.tool.up(point);
    }
  }

  cancel(): boolean {
    return this.pick.cancel();
  }
}
