import type { Meaning } from '../../colours/derive.ts';
import { type Operation, operationColours } from '../../colours/operation.ts';
import { type Drawing, type Item, pathOf, polylinesOf } from '../../drawing/item.ts';
import type { Box } from '../../geometry/box.ts';
import { pathData } from '../../geometry/path.ts';
import { simplifyPolyline } from '../../geometry/simplify.ts';

/**
 * A drawing as SVG: the page is the bed, in mm, one path an item with the stroke and fill it came with.
 *
 * @param width width of the page in mm
 * @param height height of the page in mm
 */
export function writeSvg({ items }: Drawing, width: number, height: number): string {
  const lines = items.map((item) => {
    const { stroke, strokeWidthMm, fill } = item.paint;
    const attributes = [
      `d="${pathData(pathOf(item))}"`,
      `fill="${fill ?? 'none'}"`,
      ...(fill !== null && item.fillRule === 'evenodd' ? ['fill-rule="evenodd"'] : []),
      `stroke="${stroke ?? 'none'}"`,
      ...(stroke === null ? [] : [`stroke-width="${strokeWidthMm}"`]),
      ...(item.name === null ? [] : [`aria-label="${escapeXml(item.name)}"`]),
    ];
    return `  <path ${attributes.join(' ')}/>`;
  });
  return [page(width, height, { minX: 0, minY: 0, maxX: width, maxY: height }), ...lines, '</svg>', ''].join('\n');
}

/**
 * A small picture of a job as it will burn, for cards and lists: items in their operation's colour,
 * lines thinned to what shows at that size.
 *
 * @param view what to show, in bed mm
 * @param detail how far lines may stray, in mm
 */
export function writePicture(drawing: Drawing, meaning: Meaning, view: Box, detail: number): string {
  const operationOf = new Map<string, Operation>();
  for (const { id, operation } of meaning.layers) {
    for (const { item } of meaning.placed.get(id) ?? []) operationOf.set(item.id, operation);
  }
  const width = view.maxX - view.minX;
  const lines = drawing.items.map((item) => {
    const operation = operationOf.get(item.id);
    const colour = operation ? operationColours[operation] : '#9A9A92';
    const look =
      operation === 'engrave'
        ? `fill="${colour}" fill-rule="evenodd"`
        : `fill="none" stroke="${colour}" stroke-width="${(width / 320).toFixed(3)}"`;
    return `<path d="${thinnedData(item, detail)}" ${look}/>`;
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

function page(width: number, height: number, view: Box): string {
  const viewBox = [view.minX, view.minY, view.maxX - view.minX, view.maxY - view.minY].join(' ');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="${viewBox}">`;
}

function escapeXml(text: string): string {
  return text.replace(/[<>&"]/g, (character) => `&#${character.charCodeAt(0)};`);
}
