import { emptyPath, PathBuilder } from '../../geometry/paths/path.ts';
import type { Joint } from '../assembly/assembly.ts';
import { type Box3, sidesOf, type Vec3 } from '../assembly/space.ts';
import type { Builder, Built, Part, Stock } from '../builder.ts';
import { choice, count, length, type NumbersOf, type Trouble, yes } from '../fields.ts';
import { fitFields, playIn } from '../fit-fields.ts';
import { boxOn, onPlace, type Plate, placeOf, plateSolid } from '../plate.ts';
import { rounded } from '../rounding.ts';
import { type Label, letterName } from '../stroke-letters.ts';
import { dividersIn } from './dividers.ts';
import { type Edge, shareOut } from './edges.ts';
import { type Lid, planLid, takenByWalls } from './lids.ts';
import { plateOutline } from './outline.ts';

const mostMm = 3000;

const fields = {
  measured: choice('Sizes are', 'inside', { inside: 'Inside', outside: 'Outside' }),
  width: length('Width', 154, [1, mostMm]),
  depth: length('Depth', 104, [1, mostMm]),
  height: length('Height', 64, [1, mostMm]),
  ...fitFields,
  lid: choice<Lid>('Lid', 'none', { none: 'None', closed: 'Closed', lifts: 'Lifts off', slides: 'Slides in' }),
  lidPlay: length('Play of the lid', 0.4, [0, 5], 'How much narrower the lid is than its room.'),
  fingers: choice('Fingers', 'width', { width: 'By their width', count: 'By their count' }),
  fingerWidth: length('Finger width', 14, [0.5, 500], 'What is aimed at: fingers are even on every edge.'),
  fingerCount: count('Fingers on each edge', 5, [2, 200], 'Of both parts together.'),
  dividersAcross: count('Dividers across', 0, [0, 100]),
  dividersAlong: count('Dividers along', 0, [0, 100]),
  dividersLower: length('Dividers lower by', 0, [0, mostMm], 'How far they end below the height of the inside.'),
  letters: yes('Score letters where parts meet', true),
} as const;

type BoxNumbers = NumbersOf<typeof fields>;

/** A box of plates with finger joints, with or without lid and dividers. */
export const joinedBox: Builder<typeof fields> = {
  id: 'joined-box',
  word: 'box',
  name: 'Joined box',
  about: 'A box whose sides interlock with fingers.',
  fields,
  asks: ({ fit, lid, fingers, dividersAcross, dividersAlong }) =>
    (Object.keys(fields) as (keyof typeof fields)[]).filter((field) => {
      if (field === 'play') return fit === 'typed';
      if (field === 'lidPlay') return lid === 'lifts' || lid === 'slides';
      if (field === 'fingerWidth') return fingers === 'width';
      if (field === 'fingerCount') return fingers === 'count';
      return field !== 'dividersLower' || dividersAcross + dividersAlong > 0;
    }),
  build: (numbers, stock) => {
    const inside = insideOf(numbers, stock);
    const troubles = troublesWith(numbers, inside, stock);
    return troubles.length > 0 ? troubles : built(numbers, inside, stock);
  },
};

/** The inside as typed, or what the outside leaves, in mm. */
function insideOf({ measured, lid, lidPlay, width, depth, height }: BoxNumbers, { thicknessMm }: Stock): Vec3 {
  if (measured === 'inside') return [width, depth, height];
  const [x, y, z] = takenByWalls(lid, thicknessMm, lidPlay);
  return [width - x, depth - y, height - z];
}

function troublesWith(numbers: BoxNumbers, inside: Vec3, { thicknessMm: t }: Stock): Trouble[] {
  const { lid, lidPlay, fingers, fingerWidth, fingerCount, dividersAcross, dividersAlong, dividersLower } = numbers;
  const troubles: Trouble[] = [];
  const sizes = ['width', 'depth', 'height'] as const;
  const taken = takenByWalls(lid, t, lidPlay);
  sizes.forEach((field, i) => {
    if (inside[i] >= 1) return;
    const message = `${fields[field].label} is ${numbers[field]} mm outside, and the stock takes ${rounded(taken[i])} mm of it: nothing is left inside.`;
    troubles.push({ field, message, nearest: rounded(taken[i] + 1) });
  });
  if (troubles.length > 0) return troubles;
  if (fingers === 'width' && fingerWidth < t) {
    const message = `Fingers of ${fingerWidth} mm are thinner than the stock, which is ${t} mm: they break.`;
    troubles.push({ field: 'fingerWidth', message, nearest: t });
  }
  if (fingers === 'count') {
    const shortest = Math.min(...inside);
    const most = Math.max(1, Math.floor(shortest / t));
    if (fingerCount > most) {
      const message = `${fingerCount} fingers on an edge of ${rounded(shortest)} mm are thinner than the stock, which is ${t} mm: they break.`;
      troubles.push({ field: 'fingerCount', message, nearest: Math.max(2, most) });
    }
  }
  const rows = [
    ['dividersAcross', dividersAcross, inside[1]],
    ['dividersAlong', dividersAlong, inside[0]],
  ] as const;
  for (const [field, wanted, room] of rows) {
    const most = Math.max(0, Math.floor((room - t) / (2 * t)));
    if (wanted <= most) continue;
    const message = `${wanted} dividers do not fit into ${rounded(room)} mm: each takes ${t} mm, and as much must be free beside it.`;
    troubles.push({ field, message, nearest: most });
  }
  const least = 4 * t;
  if (dividersAcross + dividersAlong > 0 && inside[2] - dividersLower < least) {
    const message = `Dividers of ${rounded(inside[2] - dividersLower)} mm are too low for tabs; they take ${rounded(least)} mm.`;
    const nearest = inside[2] >= least ? rounded(inside[2] - least) : null;
    troubles.push({ field: 'dividersLower', message, nearest });
  }
  return troubles;
}

/** How many pieces an edge has: odd where a width is aimed at, so that both of its ends are alike. */
function countOf({ fingers, fingerWidth, fingerCount }: BoxNumbers, thickness: number) {
  return (lengthMm: number) => {
    if (fingers === 'count') return fingerCount;
    let pieces = Math.max(1, 2 * Math.round((lengthMm / fingerWidth - 1) / 2) + 1);
    while (pieces > 1 && lengthMm / pieces < thickness) pieces -= 2;
    return pieces;
  };
}

function built(numbers: BoxNumbers, size: Vec3, stock: Stock): Built {
  const { lid, lidPlay, dividersAcross, dividersAlong, dividersLower } = numbers;
  const t = stock.thicknessMm;
  const playMm = playIn(numbers, stock);
  const plan = planLid(lid, size, t, lidPlay);
  const edges = shareOut(plan.joined, countOf(numbers, t));
  const plates = [...plan.joined, ...plan.loose];
  const named = (id: string) => plates.find((plate) => plate.id === id) as Plate;
  const dividers = dividersIn(
    plan.inside,
    {
      across: [named(plan.walls.across[0]), named(plan.walls.across[1])],
      along: [named(plan.walls.along[0]), named(plan.walls.along[1])],
    },
    { across: dividersAcross, along: dividersAlong },
    size[2] - dividersLower,
    t,
    playMm,
  );
  const labels = numbers.letters ? lettersAt(edges, plates, t) : new Map<string, Label[]>();
  const worked = [
    ...plates.map((plate) => ({
      plate,
      isInner: false,
      rings: [
        plateOutline(plate, edges, playMm / 4),
        ...dividers.openings.flatMap(({ wallId, box }) => (wallId === plate.id ? [ringOn(plate, box)] : [])),
      ],
    })),
    ...dividers.plates.map(({ plate, outline }) => ({ plate, rings: [outline], isInner: true })),
  ];
  return {
    parts: worked.map(({ plate, rings }): Part => {
      const builder = new PathBuilder();
      for (const ring of rings) builder.ring(ring);
      return {
        id: plate.id,
        name: plate.name,
        cut: builder.build(),
        score: emptyPath,
        labels: labels.get(plate.id) ?? [],
      };
    }),
    sizes: { inside: size, outside: sidesOf(plan.outside) },
    playMm,
    assembly: {
      solids: worked.map(({ plate, rings, isInner }) => plateSolid(plate, rings, isInner)),
      hull: [plan.outside],
      voids: [plan.inside, ...plan.voids, ...dividers.voids],
      joints: [...edges.map((edge) => jointOf(edge, plates, playMm)), ...plan.joints, ...dividers.joints],
    },
  };
}

/** A box in space as a hole in a plate. */
function ringOn(plate: Plate, box: Box3): number[] {
  const { minX, minY, maxX, maxY } = boxOn(placeOf(plate), box);
  return [minX, minY, maxX, minY, maxX, maxY, minX, maxY];
}

/** The whole of an edge, also where only one of its plates goes on. */
function jointOf({ axis, region, plateIds }: Edge, plates: readonly Plate[], playMm: number): Joint {
  const [a, b] = plateIds.map((id) => plates.find((plate) => plate.id === id) as Plate);
  const [min, max] = [[...region.min], [...region.max]];
  min[axis] = Math.min(a.box.min[axis], b.box.min[axis]);
  max[axis] = Math.max(a.box.max[axis], b.box.max[axis]);
  const whole = { min, max } as unknown as Box3;
  return { name: `${a.name} and ${b.name}`, region: whole, axis, faces: 'cut edges', gapMm: playMm / 2 };
}

/** A letter for every edge, on both of its plates beside it. */
function lettersAt(edges: readonly Edge[], plates: readonly Plate[], thickness: number): Map<string, Label[]> {
  const labels = new Map<string, Label[]>();
  edges.forEach(({ region, plateIds }, i) => {
    const middle = region.min.map((low, k) => (low + region.max[k]) / 2) as unknown as Vec3;
    for (const id of plateIds) {
      const plate = plates.find((entry) => entry.id === id) as Plate;
      const place = placeOf(plate);
      const { minX, minY, maxX, maxY } = boxOn(place, plate.box);
      const { x, y } = onPlace(place, middle);
      const narrow = Math.min(maxX - minX, maxY - minY) - 2 * thickness;
      const heightMm = Math.min(5, Math.max(1, narrow / 5));
      const inwards = thickness / 2 + heightMm;
      const onUpright = Math.abs(Math.abs(x) - (maxX - minX) / 2) < thickness;
      const moved = onUpright ? { x: x - Math.sign(x) * inwards, y } : { x, y: y - Math.sign(y) * inwards };
      labels.set(id, [...(labels.get(id) ?? []), { words: letterName(i), ...moved, heightMm }]);
    }
  });
  return labels;
}
