import type { Colour, Group } from '../../document/item.ts';
import { isSolidLine, plainName } from './codes.ts';
import { indexColour, trueColour } from './colours.ts';
import { Fields, type Raw } from './groups.ts';

export interface Layer {
  readonly name: string;
  readonly colour: Colour;
  readonly hidden: boolean;
  /** Whether its lines are dashed where they say nothing themselves. */
  readonly dashed: boolean;
  /** Whether it is not to be printed. */
  readonly unplotted: boolean;
  readonly group: Group;
}

/** How a text style is set. */
export interface TextStyle {
  readonly family: string;
  readonly bold: boolean;
  readonly italic: boolean;
}

/** What a file says once for all its entities: its layers, each a group of its own, and its text styles. */
export class Tables {
  private readonly layers = new Map<string, Layer>();
  private readonly styles = new Map<string, TextStyle>();

  constructor(private readonly idFor: (place: string) => string) {}

  read(records: readonly Raw[]): void {
    for (const raw of records) {
      const fields = new Fields(raw);
      const name = plainName(fields.text(2) ?? '');
      if (raw.type === 'LAYER') {
        const index = fields.number(62, 7);
        const colour = fields.text(420) === null ? indexColour(Math.abs(index)) : trueColour(fields.number(420, 0));
        const hidden = index < 0 || (fields.number(70, 0) & 1) === 1;
        const dashed = !isSolidLine(fields.text(6));
        this.addLayer(name, colour, hidden, { dashed, unplotted: fields.text(290) === '0' });
      } else if (raw.type === 'STYLE') {
        const file = (fields.text(3) ?? '').replace(/\.\w+$/, '');
        const family = fields.text(1000) ?? file;
        this.styles.set(name.toLowerCase(), { family, bold: /bold|bd$/i.test(file), italic: /ital|i$/i.test(file) });
      }
    }
  }

  /** A layer by its name; one that the file does not tell of is black. */
  layer(name: string): Layer {
    return this.addLayer(name, '#000000', false);
  }

  style(name: string): TextStyle | undefined {
    return this.styles.get(name.toLowerCase());
  }

  groups(): Group[] {
    return Array.from(this.layers.values(), ({ group }) => group);
  }

  private addLayer(
    name: string,
    colour: Colour,
    hidden: boolean,
    { dashed, unplotted } = { dashed: false, unplotted: false },
  ): Layer {
    const known = this.layers.get(name.toLowerCase());
    if (known) return known;
    const group = { id: this.idFor(`layer${this.layers.size}`), name: name || 'Layer', parentId: null };
    const layer = { name, colour, hidden, dashed, unplotted, group };
    this.layers.set(name.toLowerCase(), layer);
    return layer;
  }
}
