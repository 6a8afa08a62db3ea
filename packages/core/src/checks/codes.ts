import { symbologyNames } from '../document/code.ts';
import { type Item, polylinesOf } from '../document/item.ts';
import type { Shape } from '../document/shape.ts';
import { boxOf, transformBox } from '../geometry/paths/box.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { applyTo, invert, type Matrix, meanScale } from '../geometry/paths/matrix.ts';
import { lineMeetsBox } from '../geometry/questions/line-in-box.ts';
import { itemsNear } from '../picking/nearby.ts';
import { burntItems, type Check, countOf, finding } from './finding.ts';

type CodeItem = Item & { readonly shape: Extract<Shape, { kind: 'code' }> };

const isCode = (item: Item): item is CodeItem => item.shape.kind === 'code';

/** Codes whose modules are finer than the beam, and those with something else in their quiet zone: no camera reads them. */
export const checkCodes: Check = (prepared) => {
  const burnt = burntItems(prepared);
  const codes = burnt.filter(isCode);
  if (codes.length === 0) return [];
  const fine = prepared.layers.flatMap(({ placed, burns, applied: { settings } }) => {
    const beamMm = Math.max(settings?.kerfMm ?? 0, settings?.lineSpacingMm ?? 0);
    if (!burns) return [];
    return placed.flatMap(({ item }) => (isCode(item) && moduleOf(item) < beamMm - 1e-6 ? [{ item, beamMm }] : []));
  });
  const others = { items: burnt.filter((item) => !isCode(item)) };
  const crowded = codes.filter((code) => isCrowded(code, others));
  return [...tooFine(fine), ...withoutQuiet(crowded)];
};

function moduleOf({ shape, matrix }: CodeItem): number {
  return shape.moduleMm * meanScale(matrix);
}

function tooFine(fine: readonly { item: CodeItem; beamMm: number }[]) {
  if (fine.length === 0) return [];
  const [{ item, beamMm }] = fine.toSorted((a, b) => moduleOf(a.item) - moduleOf(b.item));
  const message = `${countOf(fine.length, 'code has', 'codes have')} parts finer than the beam is wide: ${moduleOf(item).toFixed(2)} mm in a ${symbologyNames[item.shape.code.symbology]}, and the beam burns ${beamMm.toFixed(2)} mm. Make it larger, or let it say less.`;
  return [
    finding(
      'code-too-fine',
      'blocks',
      message,
      fine.map((entry) => entry.item),
    ),
  ];
}

function withoutQuiet(crowded: readonly CodeItem[]) {
  if (crowded.length === 0) return [];
  const message = `Something else burns in the quiet zone of ${countOf(crowded.length, 'code', 'codes')}. Move it away, or make the code smaller.`;
  return [finding('code-quiet-zone', 'warns', message, crowded)];
}

/** Whether a line of anything else runs through the frame of a code. */
function isCrowded({ shape, matrix }: CodeItem, others: { readonly items: readonly Item[] }): boolean {
  const frame = boxOf(0, 0, shape.code.width, shape.code.height);
  const back = invert(matrix);
  if (!back) return false;
  return itemsNear(others, transformBox(frame, matrix)).some((item) =>
    polylinesOf(item).some((line) => lineMeetsBox(moved(line, back), frame)),
  );
}

function moved({ points, closed }: Polyline, matrix: Matrix): Polyline {
  const mapped = new Float64Array(points.length);
  for (let i = 0; i < points.length; i += 2) {
    const { x, y } = applyTo(matrix, points[i], points[i + 1]);
    mapped[i] = x;
    mapped[i + 1] = y;
  }
  return { points: mapped, closed };
}
