import { type Matrix, multiply, rotation, scaling, translation } from '../../geometry/paths/matrix.ts';
import { type Path, PathBuilder } from '../../geometry/paths/path.ts';
import type { Face } from '../../text/fonts.ts';
import { capHeight, kerning, type SetGlyph, setGlyph } from '../../text/glyphs.ts';
import { plainName } from './codes.ts';
import type { Fields } from './groups.ts';

export interface DrawnText {
  readonly path: Path;
  readonly text: string;
  /** Characters that the face does not have. */
  readonly unknown: string;
}

/** Outlines of TEXT, ATTRIB and MTEXT in the entity's plane, y up. */
export function drawText(type: string, fields: Fields, face: Face): DrawnText {
  return type === 'MTEXT' ? paragraph(fields, face) : singleLine(fields, face);
}

function singleLine(fields: Fields, face: Face): DrawnText {
  const text = plainText(fields.text(1) ?? '');
  const height = fields.number(40, 1);
  const across = fields.number(72, 0);
  const up = fields.number(73, 0);
  const aligned = (across !== 0 || up !== 0) && fields.text(11) !== null;
  const place = aligned ? fields.point(11) : fields.point(10);
  const line = new Line(text, face, height);
  const share = across === 1 || across === 4 ? 0.5 : across === 2 ? 1 : 0;
  const lift = across === 4 || up === 2 ? -height / 2 : up === 3 ? -height : up === 1 ? height * 0.3 : 0;
  const mirrored = fields.number(71, 0);
  const turned = multiply(translation(place.x, place.y), rotation(fields.number(50, 0)));
  const mirror = scaling(mirrored & 2 ? -1 : 1, mirrored & 4 ? -1 : 1);
  const slant = Math.tan((fields.number(51, 0) * Math.PI) / 180);
  const shape: Matrix = [fields.number(41, 1), 0, slant, 1, 0, 0];
  const builder = new PathBuilder();
  line.draw(builder, multiply(multiply(turned, mirror), multiply(shape, translation(-line.width * share, lift))));
  return { path: builder.build(), text, unknown: line.unknown };
}

function paragraph(fields: Fields, face: Face): DrawnText {
  const height = fields.number(40, 1);
  const text = plainText([...fields.all(3), ...fields.all(1)].join(''));
  const widest = fields.number(41, 0);
  const lines = text.split('\n').flatMap((line) => wrap(line, face, height, widest));
  const step = (height * 5 * fields.number(44, 1)) / 3;
  const attach = fields.number(71, 1);
  const share = [0, 0.5, 1][(attach - 1) % 3] ?? 0;
  const row = Math.floor((attach - 1) / 3);
  const whole = height + step * (lines.length - 1);
  const top = row === 0 ? 0 : row === 1 ? whole / 2 : whole;
  const along = fields.text(11) === null ? null : fields.point(11);
  const degrees = along ? (Math.atan2(along.y, along.x) * 180) / Math.PI : fields.number(50, 0);
  const { x, y } = fields.point(10);
  const place = multiply(translation(x, y), rotation(degrees));
  const builder = new PathBuilder();
  let unknown = '';
  lines.forEach((line, i) => {
    line.draw(builder, multiply(place, translation(-line.width * share, top - height - step * i)));
    unknown += line.unknown;
  });
  return { path: builder.build(), text, unknown };
}

/** One line of text whose capitals are `height` high. */
class Line {
  private readonly glyphs: { glyph: SetGlyph; x: number }[] = [];
  readonly width: number;
  readonly unknown: string;

  constructor(text: string, face: Face, height: number) {
    const size = height / capHeight(face);
    let x = 0;
    let before = '';
    let unknown = '';
    for (const character of text) {
      const glyph = setGlyph(face, character, size);
      if (!glyph.known && character.trim() !== '') unknown += character;
      if (before !== '') x += kerning(face, before, character, size);
      this.glyphs.push({ glyph, x });
      x += glyph.advance;
      before = character;
    }
    this.width = x;
    this.unknown = unknown;
  }

  draw(builder: PathBuilder, place: Matrix): void {
    const upright = multiply(place, scaling(1, -1));
    for (const { glyph, x } of this.glyphs) glyph.draw(builder, multiply(upright, translation(x, 0)));
  }
}

function wrap(text: string, face: Face, height: number, widest: number): Line[] {
  if (!(widest > 0)) return [new Line(text, face, height)];
  const lines: Line[] = [];
  let sofar = '';
  for (const word of text.split(' ')) {
    const longer = sofar === '' ? word : `${sofar} ${word}`;
    if (sofar !== '' && new Line(longer, face, height).width > widest) {
      lines.push(new Line(sofar, face, height));
      sofar = word;
    } else sofar = longer;
  }
  return [...lines, new Line(sofar, face, height)];
}

/** Text without its formatting codes: signs by name, paragraphs as line ends, everything else dropped. */
function plainText(text: string): string {
  return plainName(text)
    .replace(/%%([dpc])/gi, (_, letter: string) => ({ d: '°', p: '±', c: '⌀' })[letter.toLowerCase()] ?? '')
    .replace(/%%[uok]/gi, '')
    .replace(/\\P/g, '\n')
    .replace(/\\~/g, ' ')
    .replace(/\\S([^;]*);/g, (_, stacked: string) => stacked.replace(/[\^#]/g, '/'))
    .replace(/\\[ACFHQTWfp][^;]*;/g, '')
    .replace(/\\[LlOoKk]/g, '')
    .replace(/\\([\\{}])|[{}]/g, (_, kept?: string) => kept ?? '');
}
