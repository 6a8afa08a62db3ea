import type { Colour, Paint } from '../../document/item.ts';

/** Lines in DXF have no width of their own that matters; they come as hairlines, in mm. */
const hairline = 0.1;

/** The paints of a drawing, each shared by all items that have it: there may be a million. */
export class Paints {
  private readonly known = new Map<string, Paint>();

  paintFor(colour: Colour, filled: boolean): Paint {
    const key = `${colour} ${filled}`;
    let paint = this.known.get(key);
    if (!paint) {
      paint = filled
        ? { stroke: null, strokeWidthMm: 0, fill: colour }
        : { stroke: colour, strokeWidthMm: hairline, fill: null };
      this.known.set(key, paint);
    }
    return paint;
  }
}
