import {
  appendBezierCurve,
  clip,
  closePath,
  concatTransformationMatrix,
  endMarkedContent,
  endPath,
  fill as fillPath,
  LineCapStyle,
  LineJoinStyle,
  lineTo,
  moveTo,
  PDFDocument,
  PDFHexString,
  type PDFImage,
  PDFName,
  PDFOperator,
  type PDFPage,
  type PDFRef,
  popGraphicsState,
  pushGraphicsState,
  setFillingRgbColor,
  setLineCap,
  setLineJoin,
  setLineWidth,
  setStrokingRgbColor,
  stroke as strokePath,
} from '@cantoo/pdf-lib';
import { channelsOf } from '../../document/channels.ts';
import { type Item, pathOf } from '../../document/item.ts';
import { boxHeight, boxWidth } from '../../geometry/paths/box.ts';
import { type Matrix, multiply } from '../../geometry/paths/matrix.ts';
import { coordsOf, type Path, Verb } from '../../geometry/paths/path.ts';
import { nameWithOperation } from '../named-layers.ts';
import type { Outgoing } from '../outgoing.ts';
import { fadeOperators } from './write-fade.ts';

const pointsPerMm = 72 / 25.4;

/**
 * Drawings as PDF at true size, a page each, colours in RGB, each layer as optional content that can be
 * switched off in a viewer.
 *
 * @param title the document's title
 */
export async function writePdf(pages: readonly Outgoing[], title: string): Promise<Uint8Array> {
  const file = await PDFDocument.create();
  file.setTitle(title);
  const layers: PDFRef[] = [];
  const images = new Map<string, PDFImage>();
  for (const outgoing of pages) await addPage(file, outgoing, layers, images);
  file.catalog.set(PDFName.of('OCProperties'), file.context.obj({ OCGs: layers, D: { Order: layers, ON: layers } }));
  return file.save();
}

async function addPage(
  file: PDFDocument,
  { page: view, layers, pictures }: Outgoing,
  registered: PDFRef[],
  images: Map<string, PDFImage>,
): Promise<void> {
  const page = file.addPage([boxWidth(view) * pointsPerMm, boxHeight(view) * pointsPerMm]);
  const properties = file.context.obj({});
  page.node.normalizedEntries().Resources.set(PDFName.of('Properties'), properties);
  // From here on in mm, y down, from the page's top left.
  const toPage: Matrix = [pointsPerMm, 0, 0, -pointsPerMm, -view.minX * pointsPerMm, view.maxY * pointsPerMm];
  page.pushOperators(pushGraphicsState(), concatTransformationMatrix(...toPage));
  for (const { name, meant, items } of layers) {
    const called = meant ? nameWithOperation(meant.operation, name) : name;
    const group = file.context.register(file.context.obj({ Type: 'OCG', Name: PDFHexString.fromText(called) }));
    const key = `L${registered.push(group)}`;
    properties.set(PDFName.of(key), group);
    page.pushOperators(PDFOperator.of('BDC' as never, [PDFName.of('OC'), PDFName.of(key)]));
    for (const item of items) await addItem(file, page, item, toPage, pictures, images);
    page.pushOperators(endMarkedContent());
  }
  page.pushOperators(popGraphicsState());
}

async function addItem(
  file: PDFDocument,
  page: PDFPage,
  item: Item,
  toPage: Matrix,
  pictures: Outgoing['pictures'],
  images: Map<string, PDFImage>,
): Promise<void> {
  if (item.shape.kind === 'picture') {
    const { pictureId, width, height, crop } = item.shape;
    const source = pictures.get(pictureId);
    if (!source) return;
    let image = images.get(pictureId);
    if (!image) {
      image = await (source.bytes[0] === 0xff ? file.embedJpg(source.bytes) : file.embedPng(source.bytes));
      images.set(pictureId, image);
    }
    const [a, b, c, d, e, f] = item.matrix;
    const name = page.node.newXObject('Picture', image.ref);
    page.pushOperators(
      pushGraphicsState(),
      concatTransformationMatrix(a, b, c, d, e, f),
      ...(crop ? [...outlineOperators(crop), clip(), endPath()] : []),
      concatTransformationMatrix(width, 0, 0, -height, 0, height),
      PDFOperator.of('Do' as never, [name]),
      popGraphicsState(),
    );
    return;
  }
  const { stroke, strokeWidthMm, fill, cap, join, fade } = item.paint;
  const outline = outlineOperators(pathOf(item));
  if (outline.length === 0) return;
  const evenodd = item.fillRule === 'evenodd';
  const paint =
    fill !== null && stroke !== null
      ? PDFOperator.of((evenodd ? 'B*' : 'B') as never)
      : fill !== null
        ? evenodd
          ? PDFOperator.of('f*' as never)
          : fillPath()
        : strokePath();
  const fades = fill !== null && fade ? fadeOperators(file, page, fade, multiply(toPage, item.matrix)) : [];
  page.pushOperators(
    ...(fades.length > 0 ? [pushGraphicsState()] : []),
    ...(fill === null ? [] : [setFillingRgbColor(...channels(fill)), ...fades]),
    ...(stroke === null
      ? []
      : [
          setStrokingRgbColor(...channels(stroke)),
          setLineWidth(strokeWidthMm),
          setLineCap(
            cap === 'round' ? LineCapStyle.Round : cap === 'square' ? LineCapStyle.Projecting : LineCapStyle.Butt,
          ),
          setLineJoin(
            join === 'round' ? LineJoinStyle.Round : join === 'bevel' ? LineJoinStyle.Bevel : LineJoinStyle.Miter,
          ),
        ]),
    ...outline,
    paint,
    ...(fades.length > 0 ? [popGraphicsState()] : []),
  );
}

/** Red, green and blue of a colour, each from 0 to 1. */
export function channels(colour: string): [number, number, number] {
  return channelsOf(colour).map((value) => value / 255) as never;
}

/** What draws the outline of a path, in its own units. */
export function outlineOperators({ verbs, coords }: Path): PDFOperator[] {
  const out: PDFOperator[] = [];
  let index = 0;
  for (const verb of verbs) {
    const c = coords.subarray(index, index + 6);
    if (verb === Verb.move) out.push(moveTo(c[0], c[1]));
    else if (verb === Verb.line) out.push(lineTo(c[0], c[1]));
    else if (verb === Verb.cubic) out.push(appendBezierCurve(c[0], c[1], c[2], c[3], c[4], c[5]));
    else out.push(closePath());
    index += coordsOf[verb];
  }
  return out;
}
