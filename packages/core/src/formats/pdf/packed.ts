import { channelsOf, colourOfChannels } from '../../document/channels.ts';
import type { Colour } from '../../document/item.ts';
import { identity, type Matrix } from '../../geometry/paths/matrix.ts';
import { type Path, PathBuilder } from '../../geometry/paths/path.ts';
import type { FadeLine } from '../fade-stops.ts';
import { meanOf, meanOfStops } from '../mean-colour.ts';

/*
 * What the PDF package hands over, in its own coding, and what we make of each piece of it.
 */

export type Engine = typeof import('pdfjs-dist');

const midGrey = [128, 128, 128];

export interface Operators {
  readonly fnArray: readonly number[];
  readonly argsArray: readonly unknown[];
}

export interface PdfFont {
  readonly loadedName: string;
  readonly isType3Font?: boolean;
  readonly vertical?: boolean;
  readonly name?: string;
  readonly fontMatrix?: Matrix;
  readonly charProcOperatorList?: Record<string, Operators>;
}

export interface PdfGlyph {
  readonly fontChar: string;
  readonly unicode: string;
  readonly width: number;
  readonly isSpace: boolean;
  readonly operatorListId?: string;
}

export interface PdfImage {
  readonly width: number;
  readonly height: number;
  readonly kind?: number;
  readonly data?: Uint8Array | Uint8ClampedArray | null;
}

/** A colour as the package gives it: `#rrggbb`, or three bytes. */
export function colourOf(value: unknown): Colour {
  return typeof value === 'string' && /^#[0-9a-f]{6}$/i.test(value) ? value.toUpperCase() : '#000000';
}

/** A path from operators and coordinates in one row, as the PDF reader packs them. */
export function pathOfData(data: ArrayLike<number>): Path {
  const builder = new PathBuilder();
  addData(builder, data, identity);
  return builder.build();
}

/** The package's own coding of paths: 0 move, 1 line, 2 cubic, 3 quadratic, 4 close. */
export function addData(builder: PathBuilder, data: ArrayLike<number>, [a, b, c, d, e, f]: Matrix): void {
  const x = (i: number) => a * data[i] + c * data[i + 1] + e;
  const y = (i: number) => b * data[i] + d * data[i + 1] + f;
  for (let i = 0; i < data.length; ) {
    switch (data[i++]) {
      case 0:
        builder.moveTo(x(i), y(i));
        i += 2;
        break;
      case 1:
        builder.lineTo(x(i), y(i));
        i += 2;
        break;
      case 2:
        builder.cubicTo(x(i), y(i), x(i + 2), y(i + 2), x(i + 4), y(i + 4));
        i += 6;
        break;
      case 3:
        builder.quadraticTo(x(i), y(i), x(i + 2), y(i + 2));
        i += 4;
        break;
      case 4:
        builder.close();
        break;
      default:
        return;
    }
  }
}

/** A picture's bytes for PNG; null where the package gives none. */
export function rasterOf({ width, height, kind, data }: PdfImage) {
  if (!data || !(width > 0 && height > 0)) return null;
  if (kind === 1) {
    const bytes = new Uint8Array(width * height);
    const stride = (width + 7) >> 3;
    for (let i = 0; i < bytes.length; i++) {
      const x = i % width;
      const byte = data[Math.floor(i / width) * stride + (x >> 3)];
      bytes[i] = (byte >> (7 - (x & 7))) & 1 ? 255 : 0;
    }
    return { width, height, data: bytes, channels: 1, depth: 8 as const };
  }
  const channels = kind === 2 ? 3 : 4;
  if (data.length < width * height * channels) return null;
  return {
    width,
    height,
    data: new Uint8Array(data.subarray(0, width * height * channels)),
    channels,
    depth: 8 as const,
  };
}

/** What an operator that ends a path does with it. */
export interface PathPainting {
  readonly stroked: boolean;
  readonly filled: boolean;
  readonly rule: 'nonzero' | 'evenodd';
}

/** By operator; those that paint nothing are not in it. */
export function pathPaintings({ OPS }: Engine): ReadonlyMap<number, PathPainting> {
  const painting = (stroked: boolean, filled: boolean, rule: PathPainting['rule'] = 'nonzero') => ({
    stroked,
    filled,
    rule,
  });
  return new Map([
    [OPS.stroke, painting(true, false)],
    [OPS.closeStroke, painting(true, false)],
    [OPS.fill, painting(false, true)],
    [OPS.eoFill, painting(false, true, 'evenodd')],
    [OPS.fillStroke, painting(true, true)],
    [OPS.closeFillStroke, painting(true, true)],
    [OPS.eoFillStroke, painting(true, true, 'evenodd')],
    [OPS.closeEOFillStroke, painting(true, true, 'evenodd')],
  ]);
}

/** The mean colour of a shading as the package hands it over: of a gradient's stops, of a mesh's corners. */
export function meanOfShading(shading: unknown): Colour {
  const parts = Array.isArray(shading) ? (shading as unknown[]) : [];
  if (parts[0] === 'RadialAxial') {
    const stops = (parts[3] as [number, string][])
      .filter(([, colour]) => colour !== 'transparent')
      .map(([offset, colour]) => ({ offset, rgba: [...channelsOf(colour), 1] }));
    if (stops.length > 0) return colourOfChannels(meanOfStops(stops));
  }
  const bytes = parts[0] === 'Mesh' ? (parts[3] as Uint8Array) : new Uint8Array();
  const corners = Array.from({ length: Math.floor(bytes.length / 3) }, (_, i) => [...bytes.slice(i * 3, i * 3 + 3), 1]);
  return colourOfChannels(meanOf(corners) ?? midGrey);
}

/** How a fill along a line or between circles fades; null of a mesh. @param matrix from the shading's frame to mm */
export function fadeOfShading(shading: unknown, matrix: Matrix): FadeLine | null {
  if (!Array.isArray(shading) || shading[0] !== 'RadialAxial') return null;
  const [, kind, , said, [x0, y0], [x1, y1], r0, r1] = shading as unknown as readonly [
    string,
    'axial' | 'radial',
    unknown,
    readonly (readonly [number, string])[],
    readonly [number, number],
    readonly [number, number],
    number | null,
    number | null,
  ];
  const stops = said.map(([offset, colour], i) => {
    const isClear = colour === 'transparent';
    // What is clear has no colour of its own: that of the stop beside it goes on.
    const beside = said[i === 0 ? 1 : i - 1]?.[1] ?? '#000000';
    return { at: offset, colour: colourOf(isClear ? beside : colour), opacity: isClear ? 0 : 1 };
  });
  if (stops.length === 0) return null;
  if (kind === 'axial') return { kind: 'linear', matrix, from: { x: x0, y: y0 }, to: { x: x1, y: y1 }, stops };
  const from = { x: x0, y: y0, radius: r0 ?? 0 };
  return { kind: 'radial', matrix, from, to: { x: x1, y: y1, radius: r1 ?? 0 }, stops };
}

/** The mean colour of a tile that repeats: the one it is painted in, or of those it paints with. */
export function meanOfTile({ OPS }: Engine, colour: unknown, { fnArray, argsArray }: Operators): Colour {
  if (typeof colour === 'string') return colourOf(colour);
  const set = fnArray.flatMap((op, i) =>
    op === OPS.setFillRGBColor || op === OPS.setStrokeRGBColor ? [colourOf((argsArray[i] as unknown[])[0])] : [],
  );
  return colourOfChannels(meanOf(set.map((found) => [...channelsOf(found), 1])) ?? midGrey);
}
