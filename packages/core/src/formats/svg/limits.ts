import type { Area } from '../../geometry/areas/area.ts';
import { ClipReader } from './clip.ts';
import type { Context } from './context.ts';
import type { Host } from './host.ts';
import { MaskReader } from './mask.ts';
import type { Declared } from './specified.ts';
import type { SvgElement } from './xml.ts';

/** Applies what leaves only a part of a part to see: its clip and its mask. */
export class Limits {
  private readonly clips: ClipReader;
  private readonly masks: MaskReader;

  /** @param textArea gives what a text covers */
  constructor(
    private readonly host: Host,
    textArea: (element: SvgElement, context: Context) => Area,
  ) {
    this.clips = new ClipReader(host.byId, host.sheet, textArea);
    this.masks = new MaskReader(host);
  }

  /** @param from where the items of the part begin among those read */
  apply(own: Declared, from: number, context: Context): void {
    const { out, notes } = this.host;
    if (from === out.items.length) return;
    const bounds = (stroked: boolean) => out.boundsSince(from, context.matrix, stroked);
    const { 'clip-path': clip = 'none', mask = 'none' } = own;
    if (clip.trim() !== 'none') {
      const area = this.clips.area(clip, context.matrix, context, bounds);
      if (area) out.clip(area, from);
      else if (area === undefined) {
        const said = `a part is taken whole: what it is clipped to, “${clip.slice(0, 40)}”, is not followed`;
        notes.add('changed', 'clip-not-read', said);
      }
    }
    if (mask.trim() === 'none') return;
    const area = this.masks.area(mask, context, bounds(false));
    if (area) out.clip(area, from);
    else if (area === undefined) notes.add('changed', 'mask-not-applied', 'a masked part is taken whole');
  }
}
