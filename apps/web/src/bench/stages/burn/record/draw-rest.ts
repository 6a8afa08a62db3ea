import type { ProgramWays } from '@lambent/core/formats';
import type { View } from '../../../bed/view.ts';
import { strokeWays } from '../../../burnt/draw-ways.ts';

const burntInk = '#8D897C';
const toBurnInk = '#C8560A';

/** Draws what of a program was burnt, what is to burn from a move on, and where that begins. */
export function drawRest(context: CanvasRenderingContext2D, view: View, ways: ProgramWays, from: number): void {
  const { xs, ys } = ways;
  context.save();
  context.translate(view.x, view.y);
  context.scale(view.scale, view.scale);
  context.setLineDash([]);
  context.lineCap = 'round';
  strokeWays(context, view, ways, [0, from], burntInk, 2);
  strokeWays(context, view, ways, [from, xs.length], toBurnInk, 2.5);
  const before = Math.max(0, from - 1);
  context.beginPath();
  context.arc(xs[before], ys[before], 7 / view.scale, 0, 2 * Math.PI);
  context.fillStyle = '#F0A93B';
  context.fill();
  context.strokeStyle = '#22302F';
  context.lineWidth = 2 / view.scale;
  context.stroke();
  context.restore();
}
