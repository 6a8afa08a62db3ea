import { type Item, pathOf } from '../../document/item.ts';
import { type Box, boxHeight, boxWidth } from '../../geometry/paths/box.ts';
import { multiply } from '../../geometry/paths/matrix.ts';
import { pathData } from '../../geometry/paths/path.ts';
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

/** An item as an element, with what it needs before it. */
export function elementFor(item: Item, pictures: Outgoing['pictures']): string {
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

/** The first tag of a page of such a size that shows a part of the bed. */
export function page(widthMm: number, heightMm: number, view: Box, unit: FileUnit = 'mm'): string {
  const said = (mm: number) => `${mm / mmPerFileUnit[unit]}${unit}`;
  const viewBox = [view.minX, view.minY, view.maxX - view.minX, view.maxY - view.minY].join(' ');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${said(widthMm)}" height="${said(heightMm)}" viewBox="${viewBox}">`;
}

function escapeXml(text: string): string {
  return text.replace(/[<>&"]/g, (character) => `&#${character.charCodeAt(0)};`);
}
