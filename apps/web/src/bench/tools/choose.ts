import type { BenchActions } from '../state/bench-state.ts';
import { ArcTool } from './arc-tool.ts';
import { AskingTool } from './asking-tool.ts';
import { CornerTool } from './corner-tool.ts';
import { DimensionTool } from './dimension-tool.ts';
import { FreehandTool } from './freehand-tool.ts';
import { LineTool } from './line-tool.ts';
import { PickTool } from './pick-tool.ts';
import { PointsTool } from './points-tool.ts';
import { ShapeTool } from './shape-tool.ts';
import { StretchTool } from './stretch-tool.ts';
import { TabsTool } from './tabs-tool.ts';
import { TextTool } from './text-tool.ts';
import type { Tool, ToolName } from './tool.ts';

/** Takes a tool to hand; what another was at is given up. */
export function chooseTool(actions: BenchActions, name: ToolName): void {
  actions.get().tool?.cancel();
  actions.takeTool(makeTool(actions, name));
  actions.showDraft(null);
}

function makeTool(actions: BenchActions, name: ToolName): Tool {
  switch (name) {
    case 'pick':
      return new PickTool(actions);
    case 'points':
      return new PointsTool(actions);
    case 'line':
      return new LineTool(actions);
    case 'arc':
      return new ArcTool(actions);
    case 'freehand':
      return new FreehandTool(actions);
    case 'why':
    case 'number':
    case 'start':
      return new AskingTool(actions, name);
    case 'tabs':
      return new TabsTool(actions);
    case 'text':
      return new TextTool(actions);
    case 'stretch':
      return new StretchTool(actions);
    case 'dimension':
      return new DimensionTool(actions);
    case 'corner':
      return new CornerTool(actions);
    default:
      return new ShapeTool(actions, name);
  }
}
