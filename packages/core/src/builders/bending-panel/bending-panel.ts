import { addEllipticArc } from '../../geometry/paths/arc.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { emptyPath, PathBuilder, pathBounds } from '../../geometry/paths/path.ts';
import type { Builder, Built, Stock } from '../builder.ts';
import type { Trouble } from '../fields.ts';
import { type BendNumbers, bendFields, bendNotes, bendOf } from './bend-numbers.ts';
import { roundBox } from './round-box.ts';
import { addSlits } from './slits.ts';

/** Flat stock that bends where it is slit: a panel, or a box whose wall is one piece. */
export const bendingPanel: Builder<typeof bendFields> = {
  id: 'bending-panel',
  word: 'bend',
  name: 'Bending panel',
  about: 'Flat stock that bends where it is slit: a panel, or a box whose wall is one piece.',
  fields: bendFields,
  asks: ({ shape, sizes, fit }) => {
    const isBox = shape === 'box';
    const ofBox: readonly string[] = ['measured', 'width', 'depth', 'height', 'closed', 'fit'];
    const ofPanel: readonly string[] = ['panelWidth', 'before', 'after', 'angle'];
    return (Object.keys(bendFields) as (keyof typeof bendFields)[]).filter((field) => {
      if (ofBox.includes(field)) return isBox;
      if (ofPanel.includes(field)) return !isBox;
      if (field === 'slit' || field === 'bridge' || field === 'spacing') return sizes === 'typed';
      return field !== 'play' || (isBox && fit === 'typed');
    });
  },
  build: (numbers, stock) => (numbers.shape === 'box' ? roundBox(numbers, stock) : panel(numbers, stock)),
};

function panel(numbers: BendNumbers, stock: Stock): Built | Trouble[] {
  const { panelWidth, before, after, radius, pattern } = numbers;
  const angle = (numbers.angle * Math.PI) / 180;
  const bend = bendOf(numbers, panelWidth, angle, stock);
  if ('field' in bend) return [bend];
  const t = stock.thicknessMm;
  const lengthMm = before + bend.lengthMm + after;
  const [x, y] = [lengthMm / 2, panelWidth / 2];
  const cut = new PathBuilder().ring([-x, -y, x, -y, x, y, -x, y]);
  const slits = addSlits(cut, before - x, panelWidth, bend.slits, pattern);
  // Bent, as one looks along it: straight on, round, and straight on again; its inside is to the left.
  const bent = new PathBuilder();
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  const centre = { x: before, y: radius };
  const away = (r: number) => [centre.x + r * sin, centre.y - r * cos] as const;
  const [inner, outer] = [away(radius), away(radius + t)];
  bent.moveTo(0, 0);
  if (before > 0) bent.lineTo(before, 0);
  addEllipticArc(bent, centre.x, centre.y, radius, radius, 0, -Math.PI / 2, angle);
  bent.lineTo(inner[0] + after * cos, inner[1] + after * sin);
  bent.lineTo(outer[0] + after * cos, outer[1] + after * sin);
  if (after > 0) bent.lineTo(...outer);
  addEllipticArc(bent, centre.x, centre.y, radius + t, radius + t, 0, angle - Math.PI / 2, -angle);
  bent.lineTo(0, -t).close();
  const outline = bent.build();
  const { minX, minY, maxX, maxY } = pathBounds(outline);
  const space = {
    outlines: flatten(outline),
    place: { origin: [0, 0, 0], u: [1, 0, 0], v: [0, 1, 0] },
    depth: panelWidth,
    hasOwnFrame: true,
  } as const;
  return {
    parts: [{ id: 'panel', name: 'Panel', cut: cut.build(), score: emptyPath, labels: [] }],
    sizes: { inside: null, outside: [maxX - minX, maxY - minY, panelWidth] },
    playMm: 0,
    notes: bendNotes(bend, slits, lengthMm),
    assembly: { solids: [{ ...space, partId: 'panel' }], hull: [space], voids: [], joints: [] },
  };
}
