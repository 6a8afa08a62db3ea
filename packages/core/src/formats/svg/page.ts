import { identity, type Matrix } from '../../geometry/paths/matrix.ts';
import type { FoundSize, SizeChoice } from '../reading.ts';
import { FileRefused } from '../refusal.ts';
import { hasUnit } from './placed-by.ts';
import type { Declared } from './specified.ts';
import { lengthInMm, mmPerPx, readLength, readNumbers } from './values.ts';
import type { SvgElement } from './xml.ts';

/** A rectangle in user units that is fitted into a viewport. */
export interface ViewBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The page a file declares, and how its user units come to mm. */
export interface SvgPage {
  readonly size: FoundSize;
  readonly toMm: Matrix;
  /** What per cent is of, in user units. */
  readonly viewBox: ViewBox;
}

/**
 * @param remarks the file's comments and metadata, which may say what unit it was drawn in
 * @throws FileRefused when the size or the viewBox of the file is nothing
 */
export function readPage(root: SvgElement, own: Declared, remarks: string): SvgPage {
  const declaredWidth = declaredSize(root, own, 'width');
  const declaredHeight = declaredSize(root, own, 'height');
  const viewBox = readViewBox(root.attributes.viewBox);
  if (viewBox && !(viewBox.width > 0 && viewBox.height > 0)) {
    throw new FileRefused(
      'The drawing’s viewBox has no size, so nothing in it can be measured. Save it again with the page fitted to the drawing.',
    );
  }
  const physical = declaredWidth?.physical || declaredHeight?.physical || false;
  // A side that is not given follows from the other one and the viewBox; 96 px to the inch.
  const width = declaredWidth?.mm ?? (viewBox ? sideBy(declaredHeight?.mm, viewBox.width, viewBox.height) : null);
  const height = declaredHeight?.mm ?? (viewBox ? sideBy(declaredWidth?.mm, viewBox.height, viewBox.width) : null);
  const box = viewBox ?? { x: 0, y: 0, width: (width ?? 0) / mmPerPx, height: (height ?? 0) / mmPerPx };
  const toMm =
    viewBox && width !== null && height !== null
      ? fitViewBox(viewBox, width, height, root.attributes.preserveAspectRatio ?? '')
      : ([mmPerPx, 0, 0, mmPerPx, 0, 0] as const);
  const scale = physical ? null : scaleFrom(remarks);
  const grown: Matrix = scale
    ? [toMm[0] * scale.factor, 0, 0, toMm[3] * scale.factor, toMm[4] * scale.factor, toMm[5] * scale.factor]
    : toMm;
  const side = (mm: number | null | undefined) => (mm === null || mm === undefined ? null : mm * (scale?.factor ?? 1));
  return {
    size: {
      pageWidthMm: side(declaredWidth?.mm),
      pageHeightMm: side(declaredHeight?.mm),
      mmPerUnit: Math.abs(grown[0]),
      from: physical ? 'the page size in the file' : (scale?.from ?? 'no unit in the file; 96 units taken for an inch'),
      sure: physical || scale !== null,
      others: physical
        ? []
        : unitChoices.map(({ label, factor }) => ({ label, factor: factor / (scale?.factor ?? 1) })),
    },
    toMm: grown,
    viewBox: box,
  };
}

/** What a unit without a name may be, as factors to 96 to the inch. */
const unitChoices: readonly SizeChoice[] = [
  { label: '96 to the inch', factor: 1 },
  { label: '90 to the inch', factor: 96 / 90 },
  { label: '72 to the inch', factor: 96 / 72 },
  { label: '1 unit = 1 mm', factor: 96 / 25.4 },
  { label: '1 unit = 1 inch', factor: 96 },
];

const unitInMm: Record<string, number> = { mm: 1, cm: 10, in: 25.4, inch: 25.4, inches: 25.4, pt: 25.4 / 72 };

/** A word in comments or metadata on how large a unit is, as a factor to 96 to the inch. */
function scaleFrom(remarks: string): { factor: number; from: string } | null {
  const perInch = /(\d+(?:\.\d+)?)\s*(?:dpi|ppi|(?:px|pixels|units|points)\s*(?:per|to the|\/)\s*inch)/i.exec(remarks);
  if (perInch && Number(perInch[1]) >= 10 && Number(perInch[1]) <= 5000) {
    return { factor: 96 / Number(perInch[1]), from: `a remark in the file: “${perInch[0].trim()}”` };
  }
  const unit = /(?:\bunits?\s*(?:is|are|=|:)|(?:\b1\s*(?:user\s*)?unit\s*=\s*1))\s*(mm|cm|inches|inch|in|pt)\b/i.exec(
    remarks,
  );
  if (!unit) return null;
  return { factor: unitInMm[unit[1].toLowerCase()] / mmPerPx, from: `a remark in the file: “${unit[0].trim()}”` };
}

function sideBy(other: number | undefined, own: number, others: number): number {
  return other === undefined ? own * mmPerPx : (other * own) / others;
}

interface DeclaredSize {
  readonly mm: number;
  readonly physical: boolean;
}

function declaredSize(root: SvgElement, own: Declared, side: 'width' | 'height'): DeclaredSize | null {
  // A style may ask for a share of the window; the attribute is then what says the size.
  const inStyle = hasUnit(own[side] ?? '') ? readLength(own[side]) : null;
  const length = inStyle && lengthInMm(inStyle) !== null ? inStyle : readLength(root.attributes[side]);
  const mm = length && lengthInMm(length);
  if (!length || mm === null) return null;
  if (mm <= 0) throw new FileRefused(`The drawing's ${side} is 0. Give the page a size in the program that made it.`);
  return { mm, physical: length.unit !== '' && length.unit !== 'px' };
}

/** The four numbers of a `viewBox`; null where it does not hold four. */
export function readViewBox(text: string | undefined): ViewBox | null {
  if (text === undefined) return null;
  const { numbers, whole } = readNumbers(text);
  if (!whole || numbers.length !== 4) return null;
  const [x, y, width, height] = numbers;
  return { x, y, width, height };
}

/** The map from a viewBox to a viewport of a size at (0, 0), by SVG's `preserveAspectRatio`. */
export function fitViewBox(
  { x, y, width, height }: ViewBox,
  toWidth: number,
  toHeight: number,
  preserve: string,
): Matrix {
  const sx = toWidth / width;
  const sy = toHeight / height;
  const [, align = 'xMidYMid', how = 'meet'] = /^\s*(?:defer\s+)?(\w+)?(?:\s+(\w+))?/.exec(preserve) ?? [];
  if (!Number.isFinite(sx) || !Number.isFinite(sy)) return identity;
  if (align === 'none' || Math.abs(sx - sy) < 1e-9 * sx) return [sx, 0, 0, sy, -x * sx, -y * sy];
  const s = how === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
  const share = (word: string) => (word === 'Min' ? 0 : word === 'Max' ? 1 : 0.5);
  const dx = share(align.slice(1, 4)) * (toWidth - width * s);
  const dy = share(align.slice(5, 8)) * (toHeight - height * s);
  return [s, 0, 0, s, dx - x * s, dy - y * s];
}
