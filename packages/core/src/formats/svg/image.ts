import type { Shape } from '../../document/shape.ts';
import { type Matrix, multiply, translation } from '../../geometry/paths/matrix.ts';
import { bytesOfDataUrl, describePicture, type PictureFacts } from '../picture/describe.ts';
import { fitPicture, pictureFile } from '../picture/file.ts';
import { pictureTroubles } from '../picture/troubles.ts';
import type { Notes, PictureFile } from '../reading.ts';
import { FileRefused } from '../refusal.ts';
import type { Context } from './context.ts';
import { fitViewBox } from './page.ts';
import { placing } from './placed-by.ts';
import type { Declared } from './specified.ts';
import type { SvgElement } from './xml.ts';

/** A picture that is embedded in a drawing. */
export interface SvgImage {
  readonly file: PictureFile;
  readonly shape: Shape;
  /** From its pixels to user units where it stands. */
  readonly place: Matrix;
}

/** Reads an embedded picture. @returns null where there is none to be had, which is noted */
export function readImage(element: SvgElement, own: Declared, context: Context, notes: Notes): SvgImage | null {
  const { href = '', preserveAspectRatio = '' } = element.attributes;
  const bytes = bytesOfDataUrl(href);
  if (!bytes) {
    const said = `a linked picture (“${href.slice(0, 60)}”) was left out: embed it in the file, or bring it in by itself`;
    notes.add('left-out', 'linked-picture', said);
    return null;
  }
  let facts: PictureFacts;
  try {
    facts = describePicture(bytes);
  } catch (error) {
    if (!(error instanceof FileRefused)) throw error;
    const said = `an embedded picture at line ${element.line} cannot be read and was left out`;
    notes.add('left-out', 'picture-not-read', said);
    return null;
  }
  const [wide, high] = [placing(element, own, 'width', context, 'x'), placing(element, own, 'height', context, 'y')];
  const fitted = fitPicture(facts, wide, high, (frame, w, h) => fitViewBox(frame, w, h, preserveAspectRatio));
  if (!fitted) {
    const said = `a <image> has no extent and draws nothing (line ${element.line})`;
    notes.add('left-out', 'nothing-to-draw', said);
    return null;
  }
  for (const { code, message } of pictureTroubles(bytes)) notes.add('changed', code, message);
  const file = pictureFile(bytes);
  const corner = translation(
    placing(element, own, 'x', context, 'x') ?? 0,
    placing(element, own, 'y', context, 'y') ?? 0,
  );
  const shape: Shape = { kind: 'picture', pictureId: file.id, width: facts.width, height: facts.height };
  return { file, shape, place: multiply(corner, fitted) };
}
