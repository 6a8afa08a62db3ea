import type { SnapKind } from '@lambent/core/picking';
import { t } from '../../words/words.ts';
import { useBench } from '../context.ts';
import { PointsTool, same } from '../tools/points-tool.ts';
import type { Draft } from '../tools/tool.ts';
import { Shape } from './konva.ts';
import { pathToCanvas } from './scene.ts';
import { toScreen } from './view.ts';

const petrol = '#0E6570';
const snapWords: Record<SnapKind, string> = {
  end: 'end',
  crossing: 'crossing',
  centre: 'centre',
  middle: 'middle',
  quadrant: t('quarter point'),
  tangent: 'tangent',
  perpendicular: t('at a right angle'),
  edge: 'edge',
  guide: 'guide',
  line: t('on the line'),
  spacing: t('equal gaps'),
  grid: 'grid',
};

/** What the tool at hand is drawing, the points it shows, and what the pointer is caught by. */
export function ToolMarks() {
  const view = useBench((state) => state.view);
  const draft = useBench((state) => state.draft);
  const snap = useBench((state) => state.caught.snap);
  const tool = useBench((state) => state.tool);
  // Points are drawn of the item that is selected, as it is now.
  useBench((state) => state.selection);
  useBench((state) => state.history.present.drawing);
  return (
    <Shape
      sceneFunc={({ _context: context }) => {
        context.save();
        context.transform(view.scale, 0, 0, view.scale, view.x, view.y);
        if (draft) drawDraft(context, draft, 1 / view.scale);
        context.restore();
        if (tool instanceof PointsTool) drawPoints(context, tool, (x, y) => toScreen(view, x, y));
        context.fillStyle = petrol;
        for (const { x, y } of draft?.dots ?? []) {
          const place = toScreen(view, x, y);
          context.fillRect(place.x - 3, place.y - 3, 6, 6);
        }
        if (snap) drawSnap(context, toScreen(view, snap.x, snap.y), snapWords[snap.kind]);
      }}
    />
  );
}

function drawDraft(context: CanvasRenderingContext2D, { outline, dashed, lit, marked, gone }: Draft, px: number): void {
  if (lit) {
    context.fillStyle = 'rgb(14 101 112 / 0.25)';
    context.fill(pathToCanvas(lit), 'evenodd');
  }
  if (outline) {
    const line = pathToCanvas(outline);
    // On dark pictures it is seen by its light rim.
    context.lineWidth = 3.6 * px;
    context.strokeStyle = 'rgb(255 255 255 / 0.75)';
    context.stroke(line);
    context.lineWidth = 1.6 * px;
    context.strokeStyle = petrol;
    context.stroke(line);
  }
  if (marked) {
    context.lineWidth = 7 * px;
    context.strokeStyle = 'rgb(14 101 112 / 0.35)';
    context.stroke(pathToCanvas(marked));
  }
  if (dashed) {
    context.lineWidth = 1.2 * px;
    context.strokeStyle = petrol;
    context.setLineDash([5 * px, 3 * px]);
    context.stroke(pathToCanvas(dashed));
    context.setLineDash([]);
  }
  if (gone) {
    context.lineWidth = 4 * px;
    context.strokeStyle = 'rgb(179 38 30 / 0.8)';
    context.stroke(pathToCanvas(gone));
  }
}

function drawPoints(
  context: CanvasRenderingContext2D,
  tool: PointsTool,
  pointAt: (x: number, y: number) => { x: number; y: number },
): void {
  context.lineWidth = 1;
  context.strokeStyle = petrol;
  tool.lines.forEach(({ nodes }, line) => {
    nodes.forEach((node, i) => {
      const chosen = tool.selected.some((place) => same(place, { line, node: i }));
      const p = pointAt(node.x, node.y);
      if (chosen) {
        for (const handle of [node.before, node.after]) {
          if (!handle) continue;
          const h = pointAt(handle.x, handle.y);
          context.beginPath();
          context.moveTo(p.x, p.y);
          context.lineTo(h.x, h.y);
          context.stroke();
          context.beginPath();
          context.arc(h.x, h.y, 3.5, 0, 2 * Math.PI);
          context.fillStyle = '#FFFFFF';
          context.fill();
          context.stroke();
        }
      }
      context.fillStyle = chosen ? petrol : '#FFFFFF';
      context.fillRect(p.x - 3.5, p.y - 3.5, 7, 7);
      context.strokeRect(p.x - 3.5, p.y - 3.5, 7, 7);
    });
  });
}

/** A mark that says where the pointer is caught, and by what. */
function drawSnap(context: CanvasRenderingContext2D, { x, y }: { x: number; y: number }, words: string): void {
  context.strokeStyle = '#A35F00';
  context.lineWidth = 1.5;
  context.beginPath();
  context.arc(x, y, 6, 0, 2 * Math.PI);
  context.moveTo(x - 10, y);
  context.lineTo(x + 10, y);
  context.moveTo(x, y - 10);
  context.lineTo(x, y + 10);
  context.stroke();
  context.font = '12px "Atkinson Hyperlegible Next Variable", sans-serif';
  const width = context.measureText(words).width;
  context.fillStyle = 'rgb(251 250 246 / 0.92)';
  context.fillRect(x + 10, y - 24, width + 8, 17);
  context.fillStyle = '#7A4700';
  context.fillText(words, x + 14, y - 11);
}
