import { encode as encodePng } from 'fast-png';
import type { ReadingChoices } from '../../document/arrival.ts';
import { type Group, type Item, unpainted } from '../../document/item.ts';
import { dashPath } from '../../geometry/paths/dash.ts';
import { isUneven, type Matrix, multiply } from '../../geometry/paths/matrix.ts';
import type { Path } from '../../geometry/paths/path.ts';
import { clipItems } from '../clipping.ts';
import { noteFade } from '../fade-stops.ts';
import { pictureFile } from '../picture/file.ts';
import { type Notes, type PictureFile, unevenStroke } from '../reading.ts';
import { paintOf, type State } from './graphics-state.ts';
import { type PathPainting, type PdfImage, rasterOf } from './packed.ts';

/** What optional content marks: the layer it is on, and whether that is shown. */
/** The items of a page, as they are drawn one after another. */
export class PageItems {
  readonly items: Item[] = [];
  readonly files = new Map<string, PictureFile>();
  /** The layers and marks that are open. */
  readonly marked: { group: Group | null; shown: boolean }[] = [];
  private count = 0;

  constructor(
    private readonly idFor: (place: string) => string,
    private readonly notes: Notes,
    private readonly choices: ReadingChoices,
  ) {}

  draw(path: Path, matrix: Matrix, painting: PathPainting, name: string | null, state: State): string | null {
    if (path.verbs.length < 2) {
      this.notes.add('left-out', 'stray-point', 'a point without extent was left out');
      return null;
    }
    const paint = paintOf(state, painting, matrix);
    if (paint.stroke !== null && state.strokeAlpha < 1) {
      this.notes.add('changed', 'see-through', 'a see-through line is taken as solid');
    }
    if (paint.stroke !== null && isUneven(matrix)) {
      this.notes.add('changed', 'uneven-stroke', unevenStroke);
    }
    const id = this.idFor(`p${this.count++}`);
    if (paint.fade) noteFade(this.notes, id);
    const hidden = paint.stroke === null && paint.fill === null;
    if (hidden)
      this.notes.add('left-out', 'unpainted-left-out', 'an outline with neither stroke nor fill is kept hidden', [id]);
    const dashed = painting.stroked && state.dashes.some((length) => length > 0);
    let outline = path;
    if (dashed && this.choices.dashes === 'dashed' && !painting.filled) {
      outline = dashPath(path, state.dashes, state.dashOffset) ?? path;
      this.notes.add('taken', 'dashes', 'a dashed stroke is taken as its dashes', [id]);
    } else if (dashed) {
      this.notes.add('changed', 'dashes-as-solid', 'a dashed stroke is taken as a solid line', [id]);
    }
    this.push(
      {
        id,
        name,
        shape: { kind: 'path', path: outline },
        matrix,
        paint,
        fillRule: painting.rule,
        groupId: null,
        pinned: null,
        hidden,
      },
      state,
    );
    return id;
  }

  private push(item: Item, { clip }: State): void {
    if (
      !item.matrix.every(Number.isFinite) ||
      (item.shape.kind === 'path' && !item.shape.path.coords.every(Number.isFinite))
    ) {
      this.notes.add('left-out', 'damaged-part', 'a part whose place or shape is no number was left out');
      return;
    }
    const mark = this.marked.findLast(({ group, shown }) => group !== null || !shown);
    const off = this.marked.some(({ shown }) => !shown);
    const placed: Item = { ...item, groupId: mark?.group?.id ?? null, hidden: item.hidden || off };
    if (off) this.notes.add('left-out', 'hidden-left-out', 'a part on a layer that is off is kept hidden', [item.id]);
    this.items.push(...(clip ? clipItems([placed], clip, this.notes, this.choices) : [placed]));
  }

  picture(state: State, image: PdfImage | null): void {
    const raw = image && rasterOf(image);
    if (!image || !raw) {
      this.notes.add('left-out', 'picture-not-read', 'a picture in a form that is not read was left out');
      return;
    }
    const file = pictureFile(encodePng(raw));
    this.files.set(file.id, file);
    const id = this.idFor(`p${this.count++}`);
    this.push(
      {
        id,
        name: 'Picture',
        shape: { kind: 'picture', pictureId: file.id, width: image.width, height: image.height },
        matrix: multiply(state.matrix, [1 / image.width, 0, 0, -1 / image.height, 0, 1]),
        paint: unpainted,
        fillRule: 'nonzero',
        groupId: null,
        pinned: null,
        hidden: false,
      },
      state,
    );
    this.notes.add('taken', 'picture', 'a picture is taken', [id]);
  }
}
