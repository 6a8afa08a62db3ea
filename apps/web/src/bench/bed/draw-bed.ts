import { type Sheet, sheetFrame, sheetOutline, sheetWithin, voidsOutline } from '@lambent/core/document';
import { type Path, pathData } from '@lambent/core/geometry';
import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import type { View } from './view.ts';

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
    context.save();
    context.transform(...sheetFrame(sheet));
    drawSheet(context, sheet, material?.tone ?? '#E8E4D8', px);
    context.restore();
  }
  context.lineWidth = 1.5 * px;
  context.strokeStyle = tones.edge;
  context.strokeRect(0, 0, bedWidth, bedHeight);
  context.restore();
}

/** Draws a sheet in its own frame: its outline, its margin, and what of it is blocked. */
function drawSheet(context: CanvasRenderingContext2D, sheet: Sheet, tone: string, px: number): void {
  const { margin } = sheet;
  const edge = pathOn(sheetOutline(sheet));
  context.fillStyle = tone;
  context.fill(edge, 'evenodd');
  context.lineWidth = px;
  context.strokeStyle = 'rgb(80 64 32 / 0.45)';
  context.stroke(edge);
  if (margin > 0) {
    context.setLineDash([5 * px, 4 * px]);
    context.stroke(pathOn(sheetWithin(sheet, margin)));
    context.setLineDash([]);
  }
  const voids = voidsOutline(sheet);
  if (voids.verbs.length === 0) return;
  const places = pathOn(voids);
  context.save();
  context.clip(places, 'evenodd');
  hatch(context, sheet, px);
  context.restore();
  context.strokeStyle = 'rgb(150 40 20 / 0.8)';
  context.stroke(places);
}

function pathOn(path: Path): Path2D {
  return new Path2D(pathData(path, 3));
}

/** Slanted lines over a sheet, in its own frame. */
function hatch(context: CanvasRenderingContext2D, { width, height }: Sheet, px: number): void {
  context.strokeStyle = 'rgb(150 40 20 / 0.45)';
  context.beginPath();
  for (let x = -height; x < width; x += 8 * px) {
    context.moveTo(x, height);
    context.lineTo(x + height, 0);
  }
  context.stroke();
}

/** Fills the bed with hexagons, pointed side up, from a tile that repeats. */
function drawComb(context: CanvasRenderingContext2D, view: View, width: number, height: number, tone: string): void {
  const ratio = window.devicePixelRatio || 1;
  const rowMm = combMm * Math.sqrt(3);
  const tile = combTile(
    Math.max(2, Math.round(combMm * view.scale * ratio)),
    Math.max(2, Math.round(rowMm * view.scale * ratio)),
    tone,
  );
  const pattern = context.createPattern(tile, 'repeat');
  if (!pattern) return;
  pattern.setTransform(new DOMMatrix().scaleSelf(combMm / tile.width, rowMm / tile.height));
  context.fillStyle = pattern;
  context.fillRect(0, 0, width, height);
}

/** One hexagon and the halves of those beside it, `width` × `height` pixels. */
function combTile(width: number, height: number, tone: string): HTMLCanvasElement {
  const tile = document.createElement('canvas');
  tile.width = width;
  tile.height = height;
  const context = tile.getContext('2d');
  if (!context) return tile;
  // From the top: a point's half side, a slope, a whole side, a slope, the other half side.
  const points = [
    [0.5, 0, 0.5, 1 / 6],
    [0.5, 1 / 6, 1, 1 / 3],
    [0.5, 1 / 6, 0, 1 / 3],
    [0, 1 / 3, 0, 2 / 3],
    [1, 1 / 3, 1, 2 / 3],
    [0, 2 / 3, 0.5, 5 / 6],
    [1, 2 / 3, 0.5, 5 / 6],
    [0.5, 5 / 6, 0.5, 1],
  ];
  context.strokeStyle = tone;
  for (const [x0, y0, x1, y1] of points) {
    context.moveTo(x0 * width, y0 * height);
    context.lineTo(x1 * width, y1 * height);
  }
  context.stroke();
  return tile;
}
