import type { Meaning } from '../../colours/derive.ts';
import { type Drawing, type Item, pathOf, polylinesOf } from '../../document/item.ts';
import { type Box, boxHeight, boxWidth } from '../../geometry/paths/box.ts';
import { multiply } from '../../geometry/paths/matrix.ts';
import { pathData } from '../../geometry/paths/path.ts';
import { simplifyPolyline } from '../../geometry/paths/simplify.ts';
import { fillsAreas, type Operation, operationOf } from '../../operations/operations.ts';
import { type FileUnit, mmPerFileUnit, type Outgoing } from '../outgoing.ts';
import { layerAttribute, operationAttribute } from './layer-attributes.ts';

/**
 * A drawing as SVG: a group a layer, one path an item. The page’s size is in a unit, what is on it in mm, which its `viewBox`
 * says.
 */
export function writeSvg({ page: view, layers, pictures }: Outgoing, unit: FileUnit = 'mm'): string {
  const width = boxWidth(view);
  const height = boxHeight(view);
  const groups = layers.map(({ name, meant, items }) => {
    const lines = items.map((item) => `    ${elementFor(item, pictures)}`);
    const layer = meant
      ? ` ${layerAttribute}="${escapeXml(meant.id)}" ${operationAttribute}="${escapeXml(meant.operation)}"`
      : '';
    return [`  <g aria-label="${escapeXml(name)}"${layer}>`, ...lines, '  </g>'].join('\n');
  });
  return [page(width, height, view, unit), ...groups, '</svg>', ''].join('\n');
}

function elementFor(item: Item, pictures: Outgoing['pictures']): string {
  const label = item.name === null ? [] : [`aria-label="${escapeXml(item.name)}"`];
  if (item.shape.kind === 'picture') {
    const { width, height, pictureId, crop } = item.shape;
    const file = pictures.get(pictureId);
    const href = file ? [`href="${dataUrl(file.bytes)}"`] : [];
    // What clips it is in its own user units, which its transform makes.
    const clipId = `crop-${item.id}`;
    const clip = crop ? `<clipPath id="${escapeXml(clipId)}"><path d="${pathData(crop)}"/></clipPath>` : '';
    const attributes = [
      `width="${width}"`,
      `height="${height}"`,
      'preserveAspectRatio="none"',
      `transform="matrix(${item.matrix.join(' ')})"`,
      ...(crop ? [`clip-path="url(#${escapeXml(clipId)})"`] : []),
      ...href,
      ...label,
    ];
    return `${clip}<image ${attributes.join(' ')}/>`;
  }
  const { stroke, strokeWidthMm, fill, cap, join } = item.paint;
  const { fade, before } = fadeFor(item);
  const attributes = [
    `d="${pathData(pathOf(item))}"`,
    `fill="${fill === null ? 'none' : (fade ?? fill)}"`,
    ...(fill !== null && item.paint.fade?.kind === 'even' ? [`fill-opacity="${item.paint.fade.opacity}"`] : []),
    ...(fill !== null && item.fillRule === 'evenodd' ? ['fill-rule="evenodd"'] : []),
    `stroke="${stroke ?? 'none'}"`,
    ...(stroke === null ? [] : [`stroke-width="${strokeWidthMm}"`]),
    ...(cap ? [`stroke-linecap="${cap}"`] : []),
    ...(join ? [`stroke-linejoin="${join}"`] : []),
    ...label,
  ];
  return `${before}<path ${attributes.join(' ')}/>`;
}

/** What stands before a path that fades, and how its fill names that; nothing where it does not. */
function fadeFor({ id, matrix, paint: { fade } }: Item): { fade: string | null; before: string } {
  if (!fade || fade.kind === 'even') return { fade: null, before: '' };
  const name = escapeXml(`fade-${id}`);
  const { from, to } = fade;
  const line = `x1="${from.x}" y1="${from.y}" x2="${to.x}" y2="${to.y}"`;
  const place =
    fade.kind === 'linear'
      ? line
      : `cx="${to.x}" cy="${to.y}" r="${fade.to.radius}" fx="${from.x}" fy="${from.y}" fr="${fade.from.radius}"`;
  const stops = fade.stops.map(
    ({ at, colour, opacity }) =>
      `<stop offset="${at}" stop-color="${colour}"${opacity < 1 ? ` stop-opacity="${opacity}"` : ''}/>`,
  );
  const onPage = `gradientUnits="userSpaceOnUse" gradientTransform="matrix(${multiply(matrix, fade.matrix).join(' ')})"`;
  const element = `${fade.kind}Gradient`;
  return {
    fade: `url(#${name})`,
    before: `<${element} id="${name}" ${onPage} ${place}>${stops.join('')}</${element}>`,
  };
}

function dataUrl(bytes: Uint8Array): string {
  let binary = '';
  for (let i = 0; i < bytes.length; i += 8192) binary += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return `data:image/${bytes[0] === 0xff ? 'jpeg' : 'png'};base64,${btoa(binary)}`;
}

/** How wide lines of small pictures are on the screen, whatever they are drawn of; and the edges of areas, in pixels. */
const linePx = 1.5;
const areaEdgePx = 0.5;

/**
 * A small picture of a job as it will burn, for cards and lists: items in their operation's colour,
 * lines thinned to what shows at that size, and as wide on the screen however large the picture is shown.
 *
 * @param thumbnails the pictures in it, by their ids; of one that is missing only its frame is drawn
 * @param view what to show, in bed mm
 * @param detail how far lines may stray, in mm
 */
export function writePicture(
  drawing: Drawing,
  meaning: Meaning,
  thumbnails: Outgoing['pictures'],
  view: Box,
  detail: number,
): string {
  const operations = new Map<string, Operation>();
  for (const { id, operation } of meaning.layers) {
    for (const { item } of meaning.placed.get(id) ?? []) operations.set(item.id, operation);
  }
  const width = view.maxX - view.minX;
  const lines = drawing.items
    .filter(({ hidden }) => !hidden)
    .map((item) => {
      if (item.shape.kind === 'picture' && thumbnails.has(item.shape.pictureId)) return elementFor(item, thumbnails);
      const operation = operations.get(item.id);
      const colour = operation ? operationOf(operation).colour : '#9A9A92';
      const isArea = operation && fillsAreas(operation);
      const look = isArea ? `fill="${colour}" fill-rule="evenodd"` : 'fill="none"';
      const line = `stroke="${colour}" stroke-width="${isArea ? areaEdgePx : linePx}" vector-effect="non-scaling-stroke"`;
      return `<path d="${thinnedData(item, detail)}" ${look} ${line}/>`;
    });
  return [page(width, view.maxY - view.minY, view), ...lines, '</svg>'].join('\n');
}

function thinnedData(item: Item, detail: number): string {
  return polylinesOf(item)
    .map((line) => {
      const points = simplifyPolyline(line.points, detail);
      let data = '';
      for (let i = 0; i < points.length; i += 2) {
        data += `${i === 0 ? 'M' : 'L'}${points[i].toFixed(2)} ${points[i + 1].toFixed(2)}`;
      }
      return line.closed ? `${data}Z` : data;
    })
    .join('');
}

function page(widthMm: number, heightMm: number, view: Box, unit: FileUnit = 'mm'): string {
  const said = (mm: number) => `${mm / mmPerFileUnit[unit]}${unit}`;
  const viewBox = [view.minX, view.minY, view.maxX - view.minX, view.maxY - view.minY].join(' ');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${said(widthMm)}" height="${said(heightMm)}" viewBox="${viewBox}">`;
}

function escapeXml(text: string): string {
  return text.replace(/[<>&"]/g, (character) => `&#${character.charCodeAt(0)};`);
}
