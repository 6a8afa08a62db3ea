import type { Matrix } from '@lambent/core/geometry';
import {
  burnsPictures,
  fillsAreas,
  followsLines,
  type Operation,
  operationOf,
  separates,
} from '@lambent/core/operations';
import { darknessOf } from '@lambent/core/pictures';
import type { Context2D } from './context-2d.ts';
import { drawFade, seeThrough } from './draw-fade.ts';
import type { Look } from './look.ts';
import { pictureOf } from './pictures.ts';
import type { SceneFill, SceneItem } from './scene.ts';
import type { View } from './view.ts';

export interface ArtworkLook {
  readonly selection: ReadonlySet<string>;
  readonly pointedOut: ReadonlySet<string>;
  /** The map that the selection is under while it is dragged, in bed mm. */
  readonly live: Matrix | null;
  readonly as: Look;
  readonly ink: string;
  /** Fainter, behind a preview. */
  readonly faint: boolean;
  /** With lines of one pixel, which the browser draws several times as fast as wider ones: where there is much to draw. */
  readonly fine: boolean;
}

/** How wide lines are, in pixels. */
const usualPx = 1.4;

/** How much fainter what is parked beside the bed is drawn. */
const parkedAlpha = 0.4;

/** Pixels a mm from which on fills are hatched. */
const hatchFrom = 9;

/**
 * Draws items by their operation, in hue and line pattern; what has no meaning as fine dots of its own colour.
 * The context is in bed mm.
 */
export function drawSceneItems(
  context: Context2D,
  view: View,
  scene: readonly SceneItem[],
  look: ArtworkLook,
  fills: readonly SceneFill[] = [],
): void {
  const px = 1 / view.scale;
  const lineWidth = (look.fine ? 1 : usualPx) * px;
  const isHatched = view.scale >= hatchFrom && look.as === 'operations';
  context.globalAlpha = look.faint ? 0.18 : 1;
  context.lineJoin = 'round';
  if (look.as === 'operations' || look.as === 'burnt') {
    const inks = new Map<Operation, string | CanvasPattern>();
    drawFills(context, scene, fills, (operation) => {
      if (look.as === 'burnt') return burntFill;
      const ink = inks.get(operation) ?? fillInk(context, operationOf(operation).colour, isHatched ? px : null);
      inks.set(operation, ink);
      return ink;
    });
  }
  const alpha = context.globalAlpha;
  for (const { item, outline, operation, parked } of scene) {
    if (item.hidden) continue;
    context.globalAlpha = parked ? alpha * parkedAlpha : alpha;
    if (item.shape.kind === 'picture') {
      drawPicture(context, item, outline, px);
    } else if (look.as === 'paints') {
      drawPaint(context, item, outline, px);
    } else if (look.as === 'outlines') {
      context.setLineDash([]);
      context.lineWidth = px;
      context.strokeStyle = look.ink;
      context.stroke(outline);
    } else if (operation && burnsPictures(operation)) {
      drawGrey(context, item, outline, look, px);
    } else if (look.as === 'burnt') {
      drawBurnt(context, outline, operation, px);
    } else if (operation && fillsAreas(operation)) {
      if (isHatched || fills.length > 0)
        strokeAs(context, outline, operationOf(operation).colour, [], px, lineWidth / 2);
    } else if (operation) {
      const { colour, dash } = operationOf(operation);
      strokeAs(context, outline, colour, dash, px, lineWidth);
    } else {
      strokeAs(context, outline, item.paint.stroke ?? item.paint.fill ?? look.ink, [1.5, 2.5], px, lineWidth);
    }
  }
  context.globalAlpha = alpha;
}

/**
 * What is engraved, all of one operation together, so that overlaps look as they burn: even-odd over outlines, or as
 * layers say.
 */
function drawFills(
  context: Context2D,
  scene: readonly SceneItem[],
  fills: readonly SceneFill[],
  inkOf: (operation: Operation) => string | CanvasPattern,
): void {
  const together = new Map<Operation, Path2D>();
  for (const { item, outline, filledBy, filledByLayer, parked } of scene) {
    if (!filledBy || item.hidden || filledByLayer || parked) continue;
    const path = together.get(filledBy) ?? new Path2D();
    path.addPath(outline);
    together.set(filledBy, path);
  }
  for (const [operation, path] of together) {
    context.fillStyle = inkOf(operation);
    context.fill(path, 'evenodd');
  }
  const alpha = context.globalAlpha;
  for (const { outline, power, operation } of fills) {
    context.fillStyle = inkOf(operation);
    context.globalAlpha = alpha * (0.25 + 0.75 * power);
    context.fill(outline, 'evenodd');
  }
  context.globalAlpha = alpha;
}

/** Points items out: a glow around them, and hidden ones shown. The context is in bed mm. */
export function drawGlow(context: Context2D, view: View, scene: readonly SceneItem[], look: ArtworkLook): void {
  const px = 1 / view.scale;
  for (const { item, outline } of scene) {
    context.lineWidth = 7 * px;
    context.strokeStyle = 'rgb(240 169 59 / 0.65)';
    context.setLineDash([]);
    context.stroke(outline);
    if (item.hidden) strokeAs(context, outline, look.ink, [2, 3], px);
  }
  drawSceneItems(context, view, scene, look);
}

/** Engraving, burnt as dark as a share says. */
const burntInk = (share: number) => `rgb(74 44 20 / ${0.62 * share})`;
const burntFill = burntInk(1);

/** What burns by its greys: in the paint it came with, or browned by as much as it is dark. */
function drawGrey(context: Context2D, item: SceneItem['item'], outline: Path2D, look: ArtworkLook, px: number): void {
  if (look.as !== 'burnt') {
    drawPaint(context, item, outline, px);
    return;
  }
  const burnt = (colour: string, opacity = 1) => burntInk(opacity * darknessOf(colour));
  if (drawFade(context, item, outline, burnt)) return;
  context.fillStyle = burnt(item.paint.fill ?? '#000000');
  context.fill(outline, item.fillRule);
}

/** How wide a groove looks, in mm; what goes through the stock is as wide as its kerf, which is drawn of its own. */
const grooveMm = 0.18;

/** As it will look on the sheet: engraving browned, scores a groove, cuts through. What is not burnt does not show. */
function drawBurnt(context: Context2D, outline: Path2D, operation: Operation | null, px: number): void {
  context.setLineDash([]);
  if (!operation || !followsLines(operation)) return;
  const isCut = separates(operation);
  context.lineWidth = Math.max(isCut ? 0 : grooveMm, px);
  context.strokeStyle = isCut ? '#241307' : 'rgb(92 58 30 / 0.75)';
  context.stroke(outline);
}

function strokeAs(
  context: Context2D,
  outline: Path2D,
  colour: string,
  dash: readonly number[],
  px: number,
  lineWidth = usualPx * px,
): void {
  context.lineWidth = lineWidth;
  context.strokeStyle = colour;
  context.setLineDash(dash.map((length) => length * px));
  context.stroke(outline);
}

/** A picture, or its frame crossed through while it is not there. */
function drawPicture(context: Context2D, item: SceneItem['item'], outline: Path2D, px: number): void {
  if (item.shape.kind !== 'picture') return;
  const { pictureId, width, height, crop } = item.shape;
  const bitmap = pictureOf(pictureId);
  if (!bitmap) {
    strokeAs(context, outline, '#6B736F', [4, 4], px);
    return;
  }
  context.save();
  if (crop) context.clip(outline);
  context.transform(...item.matrix);
  context.drawImage(bitmap, 0, 0, width, height);
  context.restore();
}

/** An item in the paint it came with; thin strokes as wide as shows. */
export function drawPaint(context: Context2D, item: SceneItem['item'], outline: Path2D, px: number): void {
  if (item.shape.kind === 'picture') {
    drawPicture(context, item, outline, px);
    return;
  }
  const { stroke, strokeWidthMm, fill } = item.paint;
  if (fill !== null && !drawFade(context, item, outline, seeThrough)) {
    context.fillStyle = fill;
    context.fill(outline, item.fillRule);
  }
  if (stroke !== null) {
    context.setLineDash([]);
    context.lineWidth = Math.max(strokeWidthMm, 1.2 * px);
    context.strokeStyle = stroke;
    context.stroke(outline);
  }
}

/** What areas of a colour are filled with: hatched, where a pixel's size in mm is given, else plain. */
function fillInk(context: Context2D, colour: string, px: number | null): string | CanvasPattern {
  if (px === null) return colour;
  const hatch = context.createPattern(hatchTile(colour), 'repeat');
  hatch?.setTransform(new DOMMatrix().scaleSelf(px, px));
  return hatch ?? colour;
}

/** By colour; there are as many as operations that fill areas. */
const hatchTiles = new Map<string, OffscreenCanvas>();

function hatchTile(colour: string): OffscreenCanvas {
  const known = hatchTiles.get(colour);
  if (known) return known;
  const made = new OffscreenCanvas(6, 6);
  const tile = made.getContext('2d');
  if (tile) {
    tile.fillStyle = `${colour}40`;
    tile.fillRect(0, 0, 6, 6);
    tile.fillStyle = colour;
    tile.fillRect(0, 0, 6, 2);
  }
  hatchTiles.set(colour, made);
  return made;
}
