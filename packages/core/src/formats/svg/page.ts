import { identity, type Matrix } from '../../geometry/matrix.ts';
import { FileRefused } from '../refusal.ts';
import { lengthInMm, mmPerPx, readLength, readNumbers } from './values.ts';
import type { SvgElement } from './xml.ts';

/** The page a file declares: the size it gives in mm (null where it gives none), and user units → mm. */
export interface SvgPage {
  readonly declaredWidthMm: number | null;
  readonly declaredHeightMm: number | null;
  readonly toMm: Matrix;
}

/** @throws FileRefused when the size or the viewBox of the file is nothing */
export function readPage(root: SvgElement): SvgPage {
  const declaredWidthMm = declaredSize(root, 'width');
  const declaredHeightMm = declaredSize(root, 'height');
  const viewBox = readViewBox(root);
  if (!viewBox) return { declaredWidthMm, declaredHeightMm, toMm: [mmPerPx, 0, 0, mmPerPx, 0, 0] };

  const [x, y, width, height] = viewBox;
  // A side that is not given follows from the other one and the viewBox.
  const pageWidth = declaredWidthMm ?? (declaredHeightMm ? (declaredHeightMm * width) / height : width * mmPerPx);
  const pageHeight = declaredHeightMm ?? (declaredWidthMm ? (declaredWidthMm * height) / width : height * mmPerPx);
  const toMm = fitViewBox(
    [x, y, width, height],
    pageWidth,
    pageHeight,
    root.attributes.get('preserveAspectRatio') ?? '',
  );
  return { declaredWidthMm, declaredHeightMm, toMm };
}

function declaredSize(root: SvgElement, side: 'width' | 'height'): number | null {
  const length = readLength(root.attributes.get(side));
  if (!length || length.unit === '%') return null;
  const mm = lengthInMm(length);
  if (mm === null) return null;
  if (mm <= 0) throw new FileRefused(`The drawing's ${side} is 0. Give the page a size in the program that made it.`);
  return mm;
}

function readViewBox(root: SvgElement): [number, number, number, number] | null {
  const text = root.attributes.get('viewBox');
  if (text === undefined) return null;
  const { numbers, whole } = readNumbers(text);
  if (!whole || numbers.length !== 4) return null;
  const [x, y, width, height] = numbers;
  if (!(width > 0 && height > 0)) {
    throw new FileRefused(
      'The drawing’s viewBox has no size, so nothing in it can be measured. Save it again with the page fitted to the drawing.',
    );
  }
  return [x, y, width, height];
}

/** The map from a viewBox to a page, by SVG's `preserveAspectRatio`. */
function fitViewBox(
  [x, y, width, height]: [number, number, number, number],
  pageWidth: number,
  pageHeight: number,
  preserve: string,
): Matrix {
  const sx = pageWidth / width;
  const sy = pageHeight / height;
  const [, align = 'xMidYMid', how = 'meet'] = /^\s*(?:defer\s+)?(\w+)?(?:\s+(\w+))?/.exec(preserve) ?? [];
  if (!Number.isFinite(sx) || !Number.isFinite(sy)) return identity;
  if (align === 'none' || Math.abs(sx - sy) < 1e-9 * sx) return [sx, 0, 0, sy, -x * sx, -y * sy];
  const s = how === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
  const share = (word: string) => (word === 'Min' ? 0 : word === 'Max' ? 1 : 0.5);
  const dx = share(align.slice(1, 4)) * (pageWidth - width * s);
  const dy = share(align.slice(5, 8)) * (pageHeight - height * s);
  return [s, 0, 0, s, dx - x * s, dy - y * s];
}
