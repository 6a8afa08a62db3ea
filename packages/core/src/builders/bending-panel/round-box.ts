import { addEllipticArc } from '../../geometry/paths/arc.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { emptyPath, type Path, PathBuilder } from '../../geometry/paths/path.ts';
import type { Joint } from '../assembly/assembly.ts';
import type { Place, Solid, Vec3 } from '../assembly/space.ts';
import type { Built, Stock } from '../builder.ts';
import type { Trouble } from '../fields.ts';
import { playIn } from '../fit-fields.ts';
import { type Form, formPath } from '../forms.ts';
import { roundedUp } from '../rounding.ts';
import { type BendNumbers, bendFields, bendNotes, bendOf } from './bend-numbers.ts';
import { addSlits } from './slits.ts';

/** The sides of the box as one goes round it from outside, to the right, from the middle of its back. */
type Side = 'back' | 'left' | 'front' | 'right';

/** A tab of a plate in a notch of the wall: on which side, and how far from its middle as one looks at it from outside. */
interface Tab {
  readonly side: Side;
  readonly middle: number;
  readonly width: number;
}

/** Tabs are no wider than that, in mm. */
const widestTab = 20;

/** A box whose wall is one piece, bent round its corners; its ends meet in the middle of the back, where two tabs hold them. */
export function roundBox(numbers: BendNumbers, stock: Stock): Built | Trouble[] {
  const { measured, closed, radius, pattern } = numbers;
  const t = stock.thicknessMm;
  const plates = closed ? 2 : 1;
  const taken = measured === 'inside' ? [0, 0, 0] : [2 * t, 2 * t, plates * t];
  const inside = [numbers.width - taken[0], numbers.depth - taken[1], numbers.height - taken[2]] as const;
  const [w, d, h] = inside;
  const straight = { back: w - 2 * radius, front: w - 2 * radius, left: d - 2 * radius, right: d - 2 * radius };
  const troubles = (['width', 'depth', 'height'] as const).flatMap((field, i): Trouble[] => {
    const least = i === 2 ? 4 * t : 2 * radius + 8 * t;
    if (inside[i] >= least - 1e-9) return [];
    const why = i === 2 ? 'too low for a wall' : `too little for two corners of ${radius} mm and tabs between them`;
    const message = `${bendFields[field].label} is ${numbers[field]} mm: ${why}.`;
    return [{ field, message, nearest: roundedUp(least + taken[i]) }];
  });
  if (troubles.length > 0) return troubles;
  const outer = h + plates * t;
  const bend = bendOf(numbers, outer, Math.PI / 2, stock);
  if ('field' in bend) return [bend];
  const playMm = playIn(numbers, stock);

  const tabs = tabsOn(straight);
  const runs = (['back', 'left', 'front', 'right', 'back'] as const).map((side, i) =>
    i === 0 || i === 4 ? straight[side] / 2 : straight[side],
  );
  const lengthMm = runs.reduce((sum, mm) => sum + mm, 0) + 4 * bend.lengthMm;
  /** Where the middles of the sides lie along the wall, from its left end. The back has its middle at both ends. */
  const middles = { left: runs[0] + bend.lengthMm + runs[1] / 2, front: lengthMm / 2, right: 0 };
  middles.right = lengthMm - middles.left;
  const cut = new PathBuilder();
  const notches = tabs
    .map(({ side, middle, width }) => {
      const along = side === 'back' ? (middle > 0 ? middle : lengthMm + middle) : middles[side] + middle;
      const half = (width + playMm) / 2;
      return [along - lengthMm / 2 - half, along - lengthMm / 2 + half] as const;
    })
    .sort(([a], [b]) => a - b);
  const [x, y] = [lengthMm / 2, outer / 2];
  const up = closed ? notches.flatMap(([from, to]) => [from, -y, from, -y + t, to, -y + t, to, -y]) : [];
  const down = [...notches].reverse().flatMap(([from, to]) => [to, y, to, y - t, from, y - t, from, y]);
  cut.ring([-x, -y, ...up, x, -y, x, y, ...down, -x, y]);
  let [slits, from] = [0, -x];
  for (const run of runs.slice(0, 4)) {
    slits += addSlits(cut, from + run, outer, bend.slits, pattern);
    from += run + bend.lengthMm;
  }

  const inner: Form = { kind: 'rectangle', halfX: w / 2, halfY: d / 2, corner: radius };
  const shell: Form = { kind: 'rectangle', halfX: w / 2 + t, halfY: d / 2 + t, corner: radius + t };
  const bottomAt: Place = { origin: [0, 0, 0], u: [1, 0, 0], v: [0, 1, 0] };
  const topAt: Place = { origin: [0, 0, outer], u: [1, 0, 0], v: [0, -1, 0] };
  const [ring, around] = [inner, shell].map((form) => flatten(formPath(form, 0)));
  const pieces = flatten(notchedWall(inside, radius, tabs, t, playMm));
  const wall = (z: number, depth: number, notched: boolean): Solid => ({
    partId: 'wall',
    outlines: notched ? pieces : [...around, ...ring],
    place: { ...bottomAt, origin: [0, 0, z] },
    depth,
    hasOwnFrame: true,
  });
  const bottom = plateWithTabs(inner, tabs, t, 1);
  const top = plateWithTabs(inner, tabs, t, -1);
  const plate = (partId: string, path: Path, place: Place): Solid => ({
    partId,
    outlines: flatten(path),
    place,
    depth: t,
  });
  const levels = closed ? [0, outer - t] : [0];
  const outside: Vec3 = [w + 2 * t, d + 2 * t, outer];
  return {
    parts: [
      { id: 'wall', name: 'Wall', cut: cut.build(), score: emptyPath, labels: [] },
      { id: 'bottom', name: 'Bottom', cut: bottom, score: emptyPath, labels: [] },
      ...(closed ? [{ id: 'top', name: 'Top', cut: top, score: emptyPath, labels: [] }] : []),
    ],
    // Its corners are round.
    sizes: { inside, outside, holdsMm3: (w * d - (4 - Math.PI) * radius ** 2) * h },
    playMm,
    notes: bendNotes(bend, slits, lengthMm),
    assembly: {
      solids: [
        wall(0, t, true),
        wall(t, h, false),
        ...(closed ? [wall(outer - t, t, true)] : []),
        plate('bottom', bottom, bottomAt),
        ...(closed ? [plate('top', top, topAt)] : []),
      ],
      hull: [{ outlines: around, place: bottomAt, depth: outer }],
      voids: [{ outlines: ring, place: { ...bottomAt, origin: [0, 0, t] }, depth: h }],
      joints: levels.flatMap((z) =>
        tabs.map((tab): Joint => {
          const region = tabBox(tab, inside, t, playMm + 0.2, z, z + t);
          const axis = tab.side === 'front' || tab.side === 'back' ? 0 : 1;
          return { name: `A tab in the ${tab.side} of the wall`, region, axis, faces: 'all', gapMm: playMm / 2 };
        }),
      ),
    },
  };
}

/** One tab on each side, and two on the back, beside where the wall's ends meet. */
function tabsOn(straight: Readonly<Record<Side, number>>): Tab[] {
  const width = (side: Side) => Math.min(widestTab, straight[side] / (side === 'back' ? 4 : 3));
  const back = straight.back / 4;
  return [
    { side: 'back', middle: back, width: width('back') },
    { side: 'left', middle: 0, width: width('left') },
    { side: 'front', middle: 0, width: width('front') },
    { side: 'right', middle: 0, width: width('right') },
    { side: 'back', middle: -back, width: width('back') },
  ];
}

/** What is left of the wall, seen from above, between the notches for tabs: a piece round each corner, and one on the back. */
function notchedWall([w, d]: readonly number[], radius: number, tabs: readonly Tab[], t: number, playMm: number): Path {
  const tabOn = (side: Side) => tabs.find((tab) => tab.side === side) as Tab;
  const half = (side: Side) => (tabOn(side).width + playMm) / 2;
  const back = Math.abs(tabOn('back').middle);
  const [x, y] = [w / 2 - radius, d / 2 - radius];
  const builder = new PathBuilder();
  for (const [right, behind] of [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ] as const) {
    const along = behind === 1 ? back + half('back') : half('front');
    const beside = half(right === 1 ? 'right' : 'left');
    const from = (behind * Math.PI) / 2;
    const sweep = (-right * behind * Math.PI) / 2;
    builder.moveTo(right * along, behind * (d / 2 + t)).lineTo(right * x, behind * (d / 2 + t));
    addEllipticArc(builder, right * x, behind * y, radius + t, radius + t, 0, from, sweep);
    builder.lineTo(right * (w / 2 + t), behind * beside).lineTo((right * w) / 2, behind * beside);
    builder.lineTo((right * w) / 2, behind * y);
    addEllipticArc(builder, right * x, behind * y, radius, radius, 0, from + sweep, -sweep);
    builder.lineTo(right * along, (behind * d) / 2).close();
  }
  const inner = back - half('back');
  return builder.ring([-inner, d / 2, inner, d / 2, inner, d / 2 + t, -inner, d / 2 + t]).build();
}

/** A tab in space, so much wider, between two heights. */
function tabBox(
  { side, middle, width }: Tab,
  [w, d]: readonly number[],
  t: number,
  more: number,
  low: number,
  high: number,
): { min: Vec3; max: Vec3 } {
  const half = (width + more) / 2;
  // One looks at the back from behind: its right is to the left.
  const along = side === 'back' || side === 'left' ? -middle : middle;
  switch (side) {
    case 'front':
      return { min: [along - half, -d / 2 - t, low], max: [along + half, -d / 2, high] };
    case 'back':
      return { min: [along - half, d / 2, low], max: [along + half, d / 2 + t, high] };
    case 'left':
      return { min: [-w / 2 - t, along - half, low], max: [-w / 2, along + half, high] };
    case 'right':
      return { min: [w / 2, along - half, low], max: [w / 2 + t, along + half, high] };
  }
}

/** A plate that fills the wall, with its tabs. @param back on which side of its y the back is; tabs are alike left and right. */
function plateWithTabs(
  { halfX, halfY, corner }: Form & { kind: 'rectangle' },
  tabs: readonly Tab[],
  t: number,
  back: 1 | -1,
): Path {
  const [x, y] = [halfX - corner, halfY - corner];
  const builder = new PathBuilder();
  const on = (side: Side) => tabs.filter((tab) => tab.side === side).sort((a, b) => a.middle - b.middle);
  const [lower, upper] = back === 1 ? (['back', 'front'] as const) : (['front', 'back'] as const);
  // As `formPath` goes, so that arcs have the same points.
  const sides = [
    {
      side: lower,
      place: (along: number, out: number) => [-along, halfY + out] as const,
      cx: -x,
      cy: y,
      from: Math.PI / 2,
    },
    {
      side: 'left',
      place: (along: number, out: number) => [-halfX - out, -along] as const,
      cx: -x,
      cy: -y,
      from: Math.PI,
    },
    {
      side: upper,
      place: (along: number, out: number) => [along, -halfY - out] as const,
      cx: x,
      cy: -y,
      from: -Math.PI / 2,
    },
    { side: 'right', place: (along: number, out: number) => [halfX + out, along] as const, cx: x, cy: y, from: 0 },
  ] as const;
  builder.moveTo(x, halfY);
  for (const { side, place, cx, cy, from } of sides) {
    for (const { middle, width } of on(side)) {
      const [start, end] = [middle - width / 2, middle + width / 2];
      builder
        .lineTo(...place(start, 0))
        .lineTo(...place(start, t))
        .lineTo(...place(end, t))
        .lineTo(...place(end, 0));
    }
    builder.lineTo(cx + corner * Math.cos(from), cy + corner * Math.sin(from));
    addEllipticArc(builder, cx, cy, corner, corner, 0, from, Math.PI / 2);
  }
  return builder.close().build();
}
