import {
  type DimensionMark,
  type Drawing,
  type GuideLine,
  type PlacedDimension,
  pathOf,
  placeDimension,
  pointOfEnd,
  type StartPoint,
} from '@lambent/core/document';
import { thingsAmong } from '@lambent/core/edits';
import type { Point } from '@lambent/core/geometry';
import type { EvenSpacing } from '@lambent/core/picking';
import { type HeldOutline, heldOutlines } from '@lambent/core/plan';
import type { LengthUnit } from '@lambent/core/units';
import { useMemo } from 'react';
import { formatLength } from '../../ui/figures.ts';
import { useBench } from '../context.ts';
import { jobOf, unitOf } from '../state/document.ts';
import { Shape } from './konva.ts';
import type { View } from './view.ts';
import { toScreen } from './view.ts';

const guideInk = '#5F6667';
const measureInk = '#34585C';
const font = '12px "Atkinson Hyperlegible Mono Variable", monospace';

/** What helps layout and never burns: guide lines, dimension marks, the mark, equal gaps, and the piece that stays put. */
export function LayoutMarks() {
  const view = useBench((state) => state.view);
  const size = useBench((state) => state.viewSize);
  const unit = useBench(unitOf);
  const { guides, dimensions, mark, drawing, numbered, starts } = useBench(jobOf);
  const asked = useBench((state) => state.asked);
  const tool = useBench((state) => state.tool?.name);
  const byHand = useBench((state) => state.prepared.layers.some(({ burning }) => burning.order === 'by-hand'));
  const showsNumbers = tool === 'number' || byHand;
  const showsStarts = tool === 'start';
  const landed = useBench((state) => state.prepared.landed.marks);
  const prepared = useBench((state) => (state.tool?.name === 'tabs' ? state.prepared : null));
  const held = useMemo(() => (prepared ? heldOutlines(prepared) : []), [prepared]);
  const guideDraft = useBench((state) => state.guideDraft);
  const gaps = useBench((state) => state.caught.gaps);
  const draft = useBench((state) => state.draft?.dimension ?? null);
  const stays = useBench((state) => state.stays);
  const selection = useBench((state) => state.selection);
  const staying = stays !== null && selection.has(stays) ? thingWith(drawing, stays, selection) : null;
  return (
    <Shape
      sceneFunc={({ _context: context }) => {
        const shown = guideDraft ? [...guides.filter(({ id }) => id !== guideDraft.id), guideDraft] : guides;
        drawGuides(context, view, size, shown);
        drawDimensions(context, view, unit, drawing, draft ? [...dimensions, draft] : dimensions);
        for (const gap of gaps) drawGap(context, view, unit, gap);
        for (const { lands, touched } of landed)
          drawTouched(context, toScreen(view, lands.x, lands.y), toScreen(view, touched.x, touched.y));
        if (mark) drawMark(context, toScreen(view, mark.x, mark.y));
        if (showsNumbers) drawNumbers(context, view, drawing, numbered);
        if (showsStarts) drawStarts(context, view, drawing, starts);
        drawTabs(context, view, held);
        if (asked) drawAsked(context, toScreen(view, asked.x, asked.y));
        if (staying) drawStaying(context, toScreen(view, (staying.minX + staying.maxX) / 2, staying.minY));
      }}
    />
  );
}

function thingWith(drawing: Drawing, id: string, selection: ReadonlySet<string>) {
  return thingsAmong(drawing, selection).find(({ ids }) => ids.includes(id))?.bounds ?? null;
}

function drawGuides(
  context: CanvasRenderingContext2D,
  view: View,
  { width, height }: { width: number; height: number },
  guides: readonly GuideLine[],
): void {
  context.setLineDash([7, 3, 1.5, 3]);
  context.strokeStyle = guideInk;
  context.lineWidth = 1;
  for (const { axis, at } of guides) {
    const { x, y } = toScreen(view, at, at);
    line(context, axis === 'x' ? x : 0, axis === 'x' ? 0 : y, axis === 'x' ? x : width, axis === 'x' ? height : y);
  }
  context.setLineDash([]);
}

function drawDimensions(
  context: CanvasRenderingContext2D,
  view: View,
  unit: LengthUnit,
  drawing: Drawing,
  marks: readonly Omit<DimensionMark, 'id'>[],
): void {
  for (const mark of marks) {
    const placed = placeDimension(drawing, mark);
    if (placed) drawDimension(context, view, placed, formatLength(placed.valueMm, unit));
  }
}

/** Thin lines from the ends, a line between them with a tick at each end, and the figure on it. */
function drawDimension(context: CanvasRenderingContext2D, view: View, placed: PlacedDimension, words: string): void {
  const [from, to, a, b] = [placed.from, placed.to, placed.lineFrom, placed.lineTo].map(({ x, y }) =>
    toScreen(view, x, y),
  );
  context.strokeStyle = measureInk;
  context.lineWidth = 0.75;
  line(context, from.x, from.y, a.x, a.y);
  line(context, to.x, to.y, b.x, b.y);
  context.lineWidth = 1;
  line(context, a.x, a.y, b.x, b.y);
  for (const { x, y } of [a, b]) line(context, x - 4, y + 4, x + 4, y - 4);
  let angle = Math.atan2(b.y - a.y, b.x - a.x);
  // Never upside down.
  if (angle > Math.PI / 2 || angle <= -Math.PI / 2) angle += Math.PI;
  label(context, (a.x + b.x) / 2, (a.y + b.y) / 2, angle, words);
}

function drawGap(
  context: CanvasRenderingContext2D,
  view: View,
  unit: LengthUnit,
  { axis, gap, gaps }: EvenSpacing,
): void {
  context.strokeStyle = '#A35F00';
  context.lineWidth = 1.5;
  for (const { from, to, across } of gaps) {
    const [a, b] = [from, to].map((along) =>
      axis === 'x' ? toScreen(view, along, across) : toScreen(view, across, along),
    );
    line(context, a.x, a.y, b.x, b.y);
    for (const { x, y } of [a, b])
      line(
        context,
        axis === 'x' ? x : x - 5,
        axis === 'x' ? y - 5 : y,
        axis === 'x' ? x : x + 5,
        axis === 'x' ? y + 5 : y,
      );
    label(context, (a.x + b.x) / 2, (a.y + b.y) / 2 - (axis === 'x' ? 12 : 0), 0, formatLength(gap, unit));
  }
}

function label(context: CanvasRenderingContext2D, x: number, y: number, angle: number, words: string): void {
  context.save();
  context.translate(x, y);
  context.rotate(angle);
  context.font = font;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  const width = context.measureText(words).width;
  context.fillStyle = 'rgb(251 250 246 / 0.92)';
  context.fillRect(-width / 2 - 3, -8, width + 6, 16);
  context.fillStyle = measureInk;
  context.fillText(words, 0, 0.5);
  context.restore();
}

function line(context: CanvasRenderingContext2D, x0: number, y0: number, x1: number, y1: number): void {
  context.beginPath();
  context.moveTo(x0, y0);
  context.lineTo(x1, y1);
  context.stroke();
}

/** A drawing pin over the piece that stays put. */
function drawStaying(context: CanvasRenderingContext2D, { x, y }: { x: number; y: number }): void {
  context.fillStyle = '#0E6570';
  context.strokeStyle = '#FBFAF6';
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(x, y);
  context.lineTo(x - 6, y - 11);
  context.arc(x, y - 14, 7, Math.PI * 0.85, Math.PI * 0.15);
  context.closePath();
  context.fill();
  context.stroke();
}

function drawMark(context: CanvasRenderingContext2D, { x, y }: { x: number; y: number }): void {
  context.strokeStyle = '#22302F';
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(x - 7, y - 7);
  context.lineTo(x + 7, y + 7);
  context.moveTo(x + 7, y - 7);
  context.lineTo(x - 7, y + 7);
  context.stroke();
}

/** Where a mark was touched, as a ring, and where it comes to lie, as a dot: the line between is what does not fit. */
function drawTouched(context: CanvasRenderingContext2D, lands: Point, touched: Point): void {
  context.setLineDash([]);
  context.strokeStyle = '#F0A93B';
  context.fillStyle = '#22302F';
  context.lineWidth = 2;
  context.beginPath();
  context.arc(touched.x, touched.y, 7, 0, 2 * Math.PI);
  context.moveTo(touched.x, touched.y);
  context.lineTo(lands.x, lands.y);
  context.stroke();
  context.beginPath();
  context.arc(lands.x, lands.y, 2.5, 0, 2 * Math.PI);
  context.fill();
}

/** The numbers that items burn by, each at its item's first point. */
function drawNumbers(
  context: CanvasRenderingContext2D,
  view: View,
  drawing: Drawing,
  numbered: readonly string[],
): void {
  const items = new Map(drawing.items.map((item) => [item.id, item]));
  numbered.forEach((id, i) => {
    const item = items.get(id);
    if (!item || item.hidden) return;
    const [x, y] = pathOf(item).coords;
    const place = toScreen(view, x, y);
    context.fillStyle = '#22302F';
    context.beginPath();
    context.arc(place.x, place.y, 9, 0, 2 * Math.PI);
    context.fill();
    context.fillStyle = '#FFFFFF';
    context.font = font;
    context.textAlign = 'center';
    context.textBaseline = 'middle';
    context.fillText(String(i + 1), place.x, place.y + 0.5);
  });
}

/** Where outlines were told to start. */
function drawStarts(
  context: CanvasRenderingContext2D,
  view: View,
  drawing: Drawing,
  starts: readonly StartPoint[],
): void {
  context.fillStyle = '#F0A93B';
  context.strokeStyle = '#22302F';
  context.lineWidth = 1.25;
  for (const { itemId, subpath, at } of starts) {
    const place = pointOfEnd(drawing, { kind: 'outline', itemId, subpath, at });
    if (!place) continue;
    const { x, y } = toScreen(view, place.x, place.y);
    context.beginPath();
    context.arc(x, y, 4.5, 0, 2 * Math.PI);
    context.fill();
    context.stroke();
  }
}

/** Tabs that hold what is cut. */
function drawTabs(context: CanvasRenderingContext2D, view: View, held: readonly HeldOutline[]): void {
  // Full, for the handles of a selection are empty squares.
  context.fillStyle = '#0E6570';
  context.strokeStyle = '#FBFAF6';
  context.lineWidth = 1.5;
  for (const { points } of held) {
    for (const point of points) {
      const { x, y } = toScreen(view, point.x, point.y);
      context.beginPath();
      context.rect(x - 4.5, y - 4.5, 9, 9);
      context.fill();
      context.stroke();
    }
  }
}

function drawAsked(context: CanvasRenderingContext2D, { x, y }: { x: number; y: number }): void {
  context.strokeStyle = '#22302F';
  context.fillStyle = '#FBFAF6';
  context.lineWidth = 1.5;
  context.beginPath();
  context.arc(x, y, 8, 0, 2 * Math.PI);
  context.fill();
  context.stroke();
  context.fillStyle = '#22302F';
  context.font = font;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  context.fillText('?', x, y + 0.5);
}
