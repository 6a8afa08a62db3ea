import {
  type Item,
  type Pixels,
  pathOf,
  type TraceSettings,
  unpainted,
  usualByColour,
  usualTraceSettings,
} from '@lambent/core/document';
import { decodePicture } from '@lambent/core/formats';
import { meanScale, nodeCount, subpathsOf } from '@lambent/core/geometry';
import { operationOf } from '@lambent/core/operations';
import { mostTracedNodes, TooManyOutlines, type TracedPath, tracePicture } from '@lambent/core/pictures/trace';
import { shippedAssets } from '@lambent/fonts';
import { colourWord } from './colour-word.ts';
import { drawingKind, writeDrawing } from './drawing-out.ts';
import { nameOf, type ReadingOptions, readDrawing, sayTo, spoken, standard } from './files.ts';
import { lengthWord } from './length-word.ts';
import { Unusable } from './unusable.ts';

export interface TraceOptions extends ReadingOptions {
  threshold: string;
  light?: boolean;
  specks: string;
  tolerance: string;
  outer?: boolean;
  middleLines?: boolean;
  colours?: string;
  stroke?: string;
  as?: string;
}

/**
 * Makes closed outlines of what the pictures of a file show.
 * @returns the exit status: 1 when nothing is found
 * @throws Unusable when a file or a word cannot be used
 */
export async function trace(from: string, to: string, options: TraceOptions): Promise<number> {
  const kind = drawingKind(to, options.as);
  const specksMm2 = numberIn('--specks', 'mm²', options.specks);
  const toleranceMm = lengthWord('--tolerance', options.tolerance, 'a length above 0, such as 0.03mm');
  const settings: TraceSettings = {
    ...usualTraceSettings,
    ...makesIn(options),
    ...partingIn(options.threshold),
    isLight: options.light === true,
    specksMm2,
    holesMm2: specksMm2,
    toleranceMm,
    isOuterOnly: options.outer === true,
  };
  const stroke = options.stroke === undefined ? operationOf('cut').colour : colourWord('--stroke', options.stroke);
  const drawn = await readDrawing(from, options);
  const pictures = new Map(drawn.reading.pictures.map((file) => [file.id, file.bytes]));
  const traced: Item[] = [];
  for (const item of drawn.items) {
    const { shape, matrix } = item;
    const bytes = shape.kind === 'picture' && !item.hidden ? pictures.get(shape.pictureId) : undefined;
    if (!bytes) continue;
    const mm = meanScale(matrix);
    const found = tracedOrRefused(from, await decodePicture(bytes, shippedAssets), settings, mm);
    for (const [i, { path, widthPx, colour }] of found.entries()) {
      // The width of a stroke stays with its middle line, and the colour of an area with that.
      const line = { ...unpainted, stroke, strokeWidthMm: widthPx > 0 ? widthPx * mm : 0.1 };
      const paint = colour === undefined ? line : { ...unpainted, fill: colour };
      const id = found.length === 1 ? item.id : `${item.id}-${i + 1}`;
      traced.push({ ...item, id, shape: { kind: 'path', path }, paint, pinned: null, fillRule: 'evenodd' });
    }
  }
  if (pictures.size === 0) throw new Unusable(`${spoken(from)} has no picture: there is nothing to trace.`);
  const count = traced.reduce((sum, item) => sum + [...subpathsOf(pathOf(item))].length, 0);
  if (count === 0) {
    sayTo(to === standard)(`${nameOf(from)}: no outline was found, and nothing was written.`);
    return 1;
  }
  await writeDrawing(to, { ...drawn, items: traced }, kind);
  const nodes = traced.reduce((sum, item) => sum + nodeCount(pathOf(item)), 0);
  const outlines = `${count} ${count === 1 ? 'outline' : 'outlines'} of ${nodes} nodes`;
  sayTo(to === standard)(`${nameOf(from)}: ${outlines} written to ${spoken(to, 'standard output')}`);
  return 0;
}

function tracedOrRefused(from: string, pixels: Pixels, settings: TraceSettings, mm: number): TracedPath[] {
  try {
    return tracePicture(pixels, settings, mm);
  } catch (error) {
    if (!(error instanceof TooManyOutlines)) throw error;
    const most = mostTracedNodes.toLocaleString('en');
    throw new Unusable(
      `${spoken(from)} would give more than ${most} nodes. Leave out larger specks with --specks, allow more with --tolerance, or choose another --threshold.`,
    );
  }
}

function makesIn({ middleLines, colours }: TraceOptions): Pick<TraceSettings, 'makes' | 'byColour'> {
  if (colours === undefined) return { makes: middleLines === true ? 'middle-lines' : 'outlines' };
  if (middleLines === true) throw new Unusable('Choose --colours or --middle-lines: a line has one colour.');
  const most = Number(colours);
  if (Number.isInteger(most) && most >= 2 && most <= 8)
    return { makes: 'colours', byColour: { ...usualByColour, most } };
  throw new Unusable(`--colours must be a whole number from 2 to 8, and not “${colours}”.`);
}

function partingIn(word: string): Pick<TraceSettings, 'parting' | 'level'> {
  const { level } = usualTraceSettings;
  if (word === 'auto') return { parting: 'best', level };
  if (word === 'local') return { parting: 'local', level };
  const typed = Number(word);
  if (word.trim() !== '' && typed >= 0 && typed <= 255) return { parting: 'level', level: typed };
  throw new Unusable(`--threshold must be auto, local, or a level from 0 to 255, and not “${word}”.`);
}

function numberIn(name: string, unit: string, word: string): number {
  const value = Number(word);
  if (word.trim() !== '' && Number.isFinite(value) && value >= 0) return value;
  throw new Unusable(`${name} must be a number of ${unit} from 0, such as 0.1, and not “${word}”.`);
}
