import type { ReadingChoices } from '../../document/arrival.ts';
import type { Item } from '../../document/item.ts';
import type { Shape } from '../../document/shape.ts';
import {
  identity,
  type Matrix,
  meanScale,
  multiply,
  rotation,
  scaling,
  translation,
} from '../../geometry/paths/matrix.ts';
import type { FontBook } from '../../text/fonts.ts';
import { layersByGroup, noteLayers } from '../named-layers.ts';
import { Notes, type Reading } from '../reading.ts';
import { noteNoFonts, noteSubstitution, noteText } from '../text-notes.ts';
import { noteCodes, plainName } from './codes.ts';
import { drawEntity } from './entities.ts';
import { type Entity, withFollowers } from './followers.ts';
import { Fields, type Raw, readSections } from './groups.ts';
import { joinLooseLines } from './join-loose.ts';
import { placeOnPage } from './page.ts';
import { Paints } from './paints.ts';
import { colourOf, type Place } from './place.ts';
import { isTilted, planar, planeOf } from './plane.ts';
import { type Layer, Tables } from './tables.ts';
import { drawText } from './text.ts';
import { unitOf } from './units.ts';

/** How far a curve that is no cubic may stray, in mm. */
const straying = 0.002;
/** More entities than this are not made of blocks within blocks: such files multiply themselves. */
const mostFromBlocks = 200_000;
const deepestBlock = 40;

/**
 * Reads a drawing from ASCII DXF, R12 to 2018: its outlines in mm, y down, a group a layer. What lies on
 * layers that are off or frozen comes hidden. Loose lines whose ends meet are joined to outlines.
 *
 * @throws FileRefused when the file cannot be used at all
 */
export function readDxf(
  text: string,
  idFor: (place: string) => string,
  fonts: FontBook,
  choices: ReadingChoices = {},
): Reading {
  return new DxfReader(text, idFor, fonts).read(choices);
}

class DxfReader {
  private readonly notes = new Notes();
  private readonly items: Item[] = [];
  private readonly tables: Tables;
  private readonly blocks = new Map<string, { base: { x: number; y: number }; entities: Entity[] }>();
  private readonly unknown = new Map<string, number>();
  private readonly paints = new Paints();
  private readonly file: ReturnType<typeof readSections>;
  private made = 0;

  constructor(
    text: string,
    private readonly idFor: (place: string) => string,
    private readonly fonts: FontBook,
  ) {
    this.file = readSections(text);
    this.tables = new Tables(idFor);
  }

  read(choices: ReadingChoices): Reading {
    const { sections, cutAt } = this.file;
    if (cutAt !== null) {
      this.notes.add(
        'left-out',
        'file-cut-short',
        `the file stops making sense at line ${cutAt}; it is read up to there`,
      );
    }
    this.tables.read(sections.get('TABLES') ?? []);
    this.readBlocks(sections.get('BLOCKS') ?? []);
    const unit = unitOf(this.file.header, this.notes);
    const start: Place = {
      matrix: scaling(unit.mm, -unit.mm),
      chain: '',
      depth: 0,
      blocks: [],
      layer: null,
      colour: null,
      hidden: false,
    };
    this.entities(withFollowers(sections.get('ENTITIES') ?? []), start);
    const joined = joinLooseLines(this.items, this.notes);
    const { items, page } = placeOnPage(joined, this.file.header, unit.mm);
    for (const [type, count] of this.unknown) {
      this.notes.add('left-out', `entity-not-taken:${type}`, `${type} is not taken and was left out`, [], count);
    }
    if (items.length === 0) this.notes.add('left-out', 'nothing-drawn', 'the file holds nothing that can be burnt');
    const used = new Set(items.map(({ groupId }) => groupId));
    const drawing = { items, groups: this.tables.groups().filter(({ id }) => used.has(id)) };
    const layers = choices.layers === 'by-colour' ? [] : layersByGroup(drawing);
    noteLayers(layers, this.notes);
    return {
      format: 'dxf',
      drawing,
      layers,
      pictures: [],
      size: { pageWidthMm: page?.width ?? null, pageHeightMm: page?.height ?? null, mmPerUnit: unit.mm, ...unit.found },
      notes: this.notes.list(),
      pageCount: 1,
    };
  }

  private readBlocks(records: readonly Raw[]): void {
    let open: { name: string; base: { x: number; y: number }; raws: Raw[] } | null = null;
    for (const raw of records) {
      if (raw.type === 'BLOCK') {
        const fields = new Fields(raw);
        open = { name: (fields.text(2) ?? '').toLowerCase(), base: fields.point(10), raws: [] };
      } else if (raw.type === 'ENDBLK' && open) {
        this.blocks.set(open.name, { base: open.base, entities: withFollowers(open.raws) });
        open = null;
      } else open?.raws.push(raw);
    }
  }

  private entities(entities: readonly Entity[], place: Place): void {
    entities.forEach((entity, i) => {
      if (place.depth > 0 && ++this.made > mostFromBlocks) {
        this.notes.add(
          'left-out',
          'too-many-entities',
          `the file’s blocks make more than ${mostFromBlocks} parts; what goes beyond was left out`,
        );
        return;
      }
      this.entity(entity, { ...place, chain: place.chain === '' ? `e${i}` : `${place.chain}.${i}` });
    });
  }

  private entity({ raw, followers }: Entity, place: Place): void {
    const fields = new Fields(raw);
    // What is laid out on paper is the drawing once more.
    if (fields.number(67, 0) === 1) {
      this.notes.add('left-out', 'paper-space', 'a part of a paper layout was left out; the drawing itself is taken');
      return;
    }
    const layer = this.layerOf(fields, place);
    const colour = colourOf(fields, layer, place);
    const where: Place = { ...place, layer, colour, hidden: place.hidden || fields.number(60, 0) === 1 };
    noteCodes(raw, fields, layer, this.notes);
    switch (raw.type) {
      case 'INSERT':
        this.insert(fields, followers, where);
        return;
      case 'DIMENSION':
        this.block((fields.text(2) ?? '').toLowerCase(), where.matrix, where);
        return;
      case 'TEXT':
      case 'MTEXT':
      case 'ATTRIB':
        this.text(raw, fields, where);
        return;
      case 'POINT':
        this.notes.add('left-out', 'point', 'a point has no extent and was left out');
        return;
      case 'ATTDEF':
      case 'VIEWPORT':
      case 'SEQEND':
        return;
    }
    const plane = planeOf(fields);
    if (!plane) {
      this.notes.add('left-out', 'upright-part', 'a part that stands upright on the drawing was left out');
      return;
    }
    // What lies flat shares the matrix of its place.
    const isTurned = planar.has(raw.type) && plane !== identity;
    const matrix = isTurned ? multiply(place.matrix, plane) : place.matrix;
    const drawn = drawEntity(raw.type, fields, followers, straying / Math.max(1e-9, meanScale(matrix)));
    if (drawn === undefined) {
      this.unknown.set(raw.type, (this.unknown.get(raw.type) ?? 0) + 1);
      return;
    }
    if (drawn === null) {
      this.notes.add(
        'left-out',
        'damaged-entity',
        `a ${raw.type} that draws nothing, or is damaged, was left out (line ${raw.line})`,
      );
      return;
    }
    const id = this.push(where, drawn.shape, matrix, drawn.filled, null);
    if (drawn.remark === 'hatch-pattern')
      this.notes.add('changed', 'hatch-as-fill', 'a hatch of lines is taken as a fill', [id]);
    if (drawn.remark === 'spline-through-points') {
      this.notes.add(
        'changed',
        'spline-through-points',
        'a spline that only says what points it goes through is drawn smoothly through them',
        [id],
      );
    }
    if (isTilted(fields, raw))
      this.notes.add('changed', 'seen-from-above', 'a part that is not level is taken as seen from above', [id]);
  }

  private insert(fields: Fields, followers: readonly Raw[], place: Place): void {
    const name = (fields.text(2) ?? '').toLowerCase();
    const plane = planeOf(fields) ?? scaling(1, 1);
    const { x, y } = fields.point(10);
    const turned = multiply(multiply(multiply(place.matrix, plane), translation(x, y)), rotation(fields.number(50, 0)));
    const [columns, rows] = [70, 71].map((code) => Math.min(1000, Math.max(1, Math.floor(fields.number(code, 1)))));
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        const shift = translation(column * fields.number(44, 0), row * fields.number(45, 0));
        const matrix = multiply(multiply(turned, shift), scaling(fields.number(41, 1), fields.number(42, 1)));
        this.block(name, matrix, { ...place, chain: `${place.chain}x${column}y${row}` });
      }
    }
    followers.forEach((raw, i) => {
      if (raw.type === 'ATTRIB') this.entity({ raw, followers: [] }, { ...place, chain: `${place.chain}a${i}` });
    });
  }

  private block(name: string, matrix: Matrix, place: Place): void {
    const block = this.blocks.get(name);
    if (!block) {
      this.notes.add('left-out', 'block-missing', `the block “${name.slice(0, 40)}” is not in the file`);
      return;
    }
    if (place.blocks.includes(name) || place.depth >= deepestBlock) {
      this.notes.add(
        'left-out',
        'block-in-itself',
        `the block “${name.slice(0, 40)}” holds itself; what repeats was left out`,
      );
      return;
    }
    const inside = multiply(matrix, translation(-block.base.x, -block.base.y));
    this.entities(block.entities, {
      ...place,
      matrix: inside,
      depth: place.depth + 1,
      blocks: [...place.blocks, name],
    });
  }

  private text(raw: Raw, fields: Fields, place: Place): void {
    const hidden = place.hidden || (raw.type === 'ATTRIB' && (fields.number(70, 0) & 1) === 1);
    const style = this.tables.style(fields.text(7) ?? 'standard');
    const wanted = style?.family ? [style.family] : [];
    const { bold = false, italic = false } = style ?? {};
    const found = this.fonts.find(wanted, bold, italic);
    if (!found) {
      noteNoFonts(this.notes, raw.line);
      return;
    }
    const { path, text, unknown } = drawText(raw.type, fields, found.face);
    if (path.verbs.length === 0) return;
    const plane = raw.type === 'MTEXT' ? scaling(1, 1) : (planeOf(fields) ?? scaling(1, 1));
    const id = this.push({ ...place, hidden }, { kind: 'path', path }, multiply(place.matrix, plane), true, text);
    const substituted = new Map<string, string>();
    noteSubstitution(found, wanted[0], { bold, italic }, substituted);
    noteText(this.notes, { ids: [id], substituted, unknown, line: raw.line });
  }

  private layerOf(fields: Fields, place: Place): Layer {
    const name = plainName(fields.text(8) ?? '0');
    // In a block, layer 0 is the layer the block is put on.
    if (name === '0' && place.layer && place.depth > 0) return place.layer;
    return this.tables.layer(name);
  }

  private push(place: Place, shape: Shape, matrix: Matrix, filled: boolean, name: string | null): string {
    const id = this.idFor(place.chain);
    const colour = place.colour ?? '#000000';
    const hidden = place.hidden || (place.layer?.hidden ?? false);
    this.items.push({
      id,
      name,
      shape,
      matrix,
      paint: this.paints.paintFor(colour, filled),
      fillRule: name === null ? 'evenodd' : 'nonzero',
      groupId: place.layer?.group.id ?? null,
      pinned: null,
      hidden,
    });
    if (hidden) {
      const said = place.hidden ? 'a part that the file does not show' : 'a part on a layer that is off or frozen';
      this.notes.add('left-out', `hidden-left-out:${place.hidden}`, `${said} is kept hidden`, [id]);
    }
    return id;
  }
}
