import { type Machine, type Material, type Sheet, sheetSafeBox } from '@lambent/core';
import type { View } from '../store.ts';

/** Colours the canvas takes from the page's theme. */
export interface Tones {
  readonly bed: string;
  readonly comb: string;
  readonly edge: string;
  readonly ink: string;
}

const combMm = 10;

/** Draws the bed with its honeycomb, and the sheets on it. */
export function drawBed(
  context: CanvasRenderingContext2D,
  view: View,
  machine: Machine,
  sheets: readonly Sheet[],
  materials: readonly Material[],
  tones: Tones,
): void {
  const { bedWidth, bedHeight } = machine;
  context.save();
  context.transform(view.scale, 0, 0, view.scale, view.x, view.y);
  const px = 1 / view.scale;
  context.fillStyle = tones.bed;
  context.fillRect(0, 0, bedWidth, bedHeight);
  if (view.scale > 0.6) drawComb(context, view, bedWidth, bedHeight, tones.comb);
  for (const sheet of sheets) {
    const material = materials.find(({ id }) => id === sheet.materialId);
    context.fillStyle = material?.tone ?? '#E8E4D8';
    context.fillRect(sheet.x, sheet.y, sheet.width, sheet.height);
    context.lineWidth = px;
    context.strokeStyle = 'rgb(80 64 32 / 0.45)';
    context.strokeRect(sheet.x, sheet.y, sheet.width, sheet.height);
    const safe = sheetSafeBox(sheet);
    if (sheet.margin > 0 && safe.maxX > safe.minX && safe.maxY > safe.minY) {
      context.setLineDash([5 * px, 4 * px]);
      context.strokeRect(safe.minX, safe.minY, safe.maxX - safe.minX, safe.maxY - safe.minY);
      context.setLineDash([]);
    }
  }
  context.lineWidth = 1.5 * px;
  context.strokeStyle = tones.edge;
  context.strokeRect(0, 0, bedWidth, bedHeight);
  context.restore();
}

/** Hexagons, pointed side up, over the part of the bed in view. */
function drawComb(context: CanvasRenderingContext2D, view: View, width: number, height: number, tone: string): void {
  const rowStep = combMm * 0.866;
  const side = combMm / Math.sqrt(3);
  context.save();
  context.beginPath();
  context.rect(0, 0, width, height);
  context.clip();
  context.beginPath();
  for (let row = 0, y = 0; y <= height + side; row++, y += rowStep) {
    for (let x = row % 2 ? combMm / 2 : 0; x <= width + combMm; x += combMm) {
      context.moveTo(x, y - side);
      context.lineTo(x, y - side / 2 - side / 2 + side * 0.5);
      context.lineTo(x + combMm / 2, y);
      context.moveTo(x, y - side / 2);
      context.lineTo(x - combMm / 2, y);
      context.lineTo(x - combMm / 2, y + side / 2);
    }
  }
  context.lineWidth = 0.6 / view.scale;
  context.strokeStyle = tone;
  context.stroke();
  context.restore();
}
