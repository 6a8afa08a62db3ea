import { PDFDict, type PDFDocument, PDFName, PDFOperator, type PDFPage } from '@cantoo/pdf-lib';
import { channelsOf } from '../../document/channels.ts';
import type { Fade, FadeStop } from '../../document/fade.ts';
import { type Matrix, multiply } from '../../geometry/paths/matrix.ts';
import { stopsOverWhite } from '../fade-stops.ts';

/**
 * What sets the fill of what is drawn next to one that fades. Where it can be seen through differently from place to
 * place, its colours are as they look over white: patterns have no opacity of their own.
 *
 * @param toPage from the frame of the item's shape to points from the page's bottom left
 */
export function fadeOperators(file: PDFDocument, page: PDFPage, fade: Fade, toPage: Matrix): PDFOperator[] {
  const { context } = file;
  const opacity = evenOpacity(fade);
  const state = page.node.newExtGState('Fade', context.obj({ ca: opacity ?? 1 }));
  const seen = PDFOperator.of('gs' as never, [state]);
  if (fade.kind === 'even') return [seen];
  const colours = (opacity === null ? stopsOverWhite(fade.stops) : fade.stops).map(({ at, colour }) => ({
    at,
    rgb: channelsOf(colour).map((channel) => channel / 255),
  }));
  const { from, to } = fade;
  const coords =
    fade.kind === 'linear'
      ? [from.x, from.y, to.x, to.y]
      : [from.x, from.y, fade.from.radius, to.x, to.y, fade.to.radius];
  const pattern = context.obj({
    PatternType: 2,
    Matrix: [...multiply(toPage, fade.matrix)],
    Shading: {
      ShadingType: fade.kind === 'linear' ? 2 : 3,
      ColorSpace: 'DeviceRGB',
      Coords: coords,
      Extend: [true, true],
      Function: stitched(colours),
    },
  });
  const name = addPattern(page, context.register(pattern));
  return [seen, PDFOperator.of('cs' as never, [PDFName.of('Pattern')]), PDFOperator.of('scn' as never, [name])];
}

/** How solid a fill is, where that is the same all over; null where it is not. */
function evenOpacity(fade: Fade): number | null {
  if (fade.kind === 'even') return fade.opacity;
  const [{ opacity }] = fade.stops;
  return fade.stops.every((stop: FadeStop) => stop.opacity === opacity) ? opacity : null;
}

interface Rgb {
  readonly at: number;
  readonly rgb: readonly number[];
}

/** A function from 0 to 1 to colours: one between each two stops, put together (ISO 32000, 7.10.4). */
function stitched(stops: readonly Rgb[]) {
  const ends = [{ ...stops[0], at: 0 }, ...stops, { ...stops[stops.length - 1], at: 1 }];
  const steps = ends.slice(1).flatMap((to, i) => (to.at > ends[i].at ? [{ from: ends[i], to }] : []));
  return {
    FunctionType: 3,
    Domain: [0, 1],
    Functions: steps.map(({ from, to }) => ({
      ...{ FunctionType: 2, Domain: [0, 1], N: 1 },
      ...{ C0: [...from.rgb], C1: [...to.rgb] },
    })),
    Bounds: steps.slice(1).map(({ from }) => from.at),
    Encode: steps.flatMap(() => [0, 1]),
  };
}

function addPattern(page: PDFPage, pattern: ReturnType<PDFDocument['context']['register']>): PDFName {
  const { Resources } = page.node.normalizedEntries();
  const { context } = page.doc;
  const known = Resources.lookupMaybe(PDFName.of('Pattern'), PDFDict);
  const patterns = known ?? context.obj({});
  if (!known) Resources.set(PDFName.of('Pattern'), patterns);
  const name = PDFName.of(`Fade${patterns.keys().length}`);
  patterns.set(name, pattern);
  return name;
}
