import type { Box } from '../../geometry/paths/box.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { appendPath, emptyPath, type Path, PathBuilder } from '../../geometry/paths/path.ts';
import type { Joint } from '../assembly/assembly.ts';
import { type Box3, grownBox, sharedBox, sidesOf, type Vec3 } from '../assembly/space.ts';
import type { Builder, Built, Part, Stock } from '../builder.ts';
import type { Trouble } from '../fields.ts';
import { playIn } from '../fit-fields.ts';
import { boxOn, type Plate, placeOf, plateSolid } from '../plate.ts';
import { addRelieved, type Bow, mostRelief, type Relief } from '../relief.ts';
import { oddPieces, roundedDown } from '../rounding.ts';
import type { Label } from '../stroke-letters.ts';
import { planBelow } from './below.ts';
import { type BoxNumbers, boxFields, hingeSizes, insideOf } from './box-numbers.ts';
import { troublesWith } from './box-troubles.ts';
import { type Dividers, dividersIn } from './dividers.ts';
import { type Edge, shareOut } from './edges.ts';
import { handleHoles } from './handles.ts';
import { type HingePlan, noHinge, planHinge } from './hinge.ts';
import { boxLabels } from './labels.ts';
import { planLid } from './lids.ts';
import { plateOutline } from './outline.ts';

/** A box of plates with finger joints, with or without lid and dividers. */
export const joinedBox: Builder<typeof boxFields> = {
  id: 'joined-box',
  word: 'box',
  name: 'Joined box',
  about: 'A box whose sides interlock with fingers.',
  fields: boxFields,
  asks: ({ fit, lid, fingers, dividersAcross, dividersAlong, below, handle, relief }) =>
    (Object.keys(boxFields) as (keyof typeof boxFields)[]).filter((field) => {
      if (field === 'play') return fit === 'typed';
      if (field === 'lidPlay') return lid !== 'none' && lid !== 'closed';
      if (field === 'hinges' || field === 'pinHole') return lid === 'hinged';
      if (field === 'fingerWidth') return fingers === 'width';
      if (field === 'fingerCount') return fingers === 'count';
      if (field === 'footSize') return below === 'feet';
      if (field === 'rimPlay') return below === 'rim';
      if (field === 'handleWidth' || field === 'handleHeight' || field === 'handleTop') return handle !== 'none';
      if (field === 'reliefWidth') return relief !== 'none';
      return (field !== 'dividersLower' && field !== 'dividerEnds') || dividersAcross + dividersAlong > 0;
    }),
  build: (numbers, stock) => {
    const inside = insideOf(numbers, stock);
    const troubles = troublesWith(numbers, inside, stock);
    return troubles.length > 0 ? troubles : built(numbers, inside, stock);
  },
};

/** How many pieces an edge has: odd where a width is aimed at, so that both of its ends are alike. */
function countOf({ fingers, fingerWidth, fingerCount }: BoxNumbers, thickness: number) {
  return (lengthMm: number) => {
    if (fingers === 'count') return fingerCount;
    let pieces = oddPieces(lengthMm, fingerWidth);
    while (pieces > 1 && lengthMm / pieces < thickness) pieces -= 2;
    return pieces;
  };
}

/** A plate with what is cut out of it. */
interface WorkedPlate {
  readonly plate: Plate;
  readonly outline: readonly number[];
  readonly holes: readonly (readonly number[])[];
  /** Edges of the outline that are arcs. */
  readonly bows?: ReadonlyMap<number, Bow>;
  /** Holes that are round. */
  readonly curved: readonly Path[];
  readonly isInner: boolean;
}

function built(numbers: BoxNumbers, size: Vec3, stock: Stock): Built | Trouble[] {
  const { lid, lidPlay, below, footSize, rimPlay, handle, handleWidth, handleHeight, handleTop } = numbers;
  const t = stock.thicknessMm;
  const playMm = playIn(numbers, stock);
  const plan = planLid(lid, size, t, lidPlay);
  const edges = shareOut(plan.joined, countOf(numbers, t));
  const outside = sidesOf(plan.outside);
  const under = planBelow(below, outside, t, footSize, rimPlay);
  const hinge = lid === 'hinged' ? planHinge(hingeSizes(numbers), outside, size[2], t, playMm) : noHinge;
  const plates = [...plan.joined, ...plan.loose, ...under.plates];
  const named = (id: string) => plates.find((plate) => plate.id === id) as Plate;
  const dividers = dividersIn(
    plan.inside,
    {
      across: [named(plan.walls.across[0]), named(plan.walls.across[1])],
      along: [named(plan.walls.along[0]), named(plan.walls.along[1])],
    },
    { across: numbers.dividersAcross, along: numbers.dividersAlong },
    size[2] - numbers.dividersLower,
    t,
    playMm,
    numbers.dividerEnds,
  );
  const centreZ = plan.inside.max[2] - handleTop - handleHeight / 2;
  const handles = handleHoles(handle, plates, [handleWidth, handleHeight], centreZ);
  const worked: WorkedPlate[] = [
    ...plates.map((plate) => {
      const openings = dividers.openings.filter(({ wallId }) => wallId === plate.id);
      const shut = openings.filter(({ isOpen }) => !isOpen).map(({ box }) => box);
      const open = openings.filter(({ isOpen }) => isOpen).map(({ box }) => boxOn(placeOf(plate), box));
      const forHinges = hinge.openings.filter(({ plateId }) => plateId === plate.id).map(({ box }) => box);
      const inRim = plate.id === 'rim' && under.rimHole ? [under.rimHole] : [];
      return {
        plate,
        outline: notched(plateOutline(plate, edges, playMm / 4), open),
        holes: [...shut, ...forHinges, ...inRim].map((box) => ringOn(plate, box)),
        curved: handles.filter(({ plateId }) => plateId === plate.id).map(({ path }) => path),
        isInner: false,
      };
    }),
    ...dividers.plates.map((entry) => ({ ...entry, holes: [], curved: [], isInner: true })),
    ...hinge.ears.map(({ hole, ...ear }) => ({ ...ear, holes: [], curved: [hole], isInner: false })),
  ];
  const troubles = [...troublesAtHinges(numbers, dividers, hinge, t), ...troublesWithRelief(numbers, worked)];
  if (troubles.length > 0) return troubles;
  const labels = numbers.letters ? boxLabels(edges, plates, dividers, t) : new Map<string, Label[]>();
  return {
    parts: worked.map((entry) => partOf(entry, numbers, labels)),
    sizes: { inside: size, outside: sumOf(outside, [0, hinge.reach, hinge.reach + (below === 'none' ? 0 : t)]) },
    playMm,
    assembly: {
      // Relief takes stock away in corners, and is left out: what goes together without it does so with it.
      solids: worked.map((entry) => plateSolid(entry.plate, ringsOf(cutOf(entry, 'none', 0)), entry.isInner)),
      hull: [plan.outside, ...under.hull, ...hinge.hull],
      voids: [
        ...[plan.inside, ...plan.voids, ...under.voids, ...dividers.voids, ...hinge.voids],
        ...handles.map(({ space }) => space),
      ],
      joints: [
        ...edges.map((edge) => jointOf(edge, plates, playMm)),
        ...[...plan.joints, ...dividers.joints, ...hinge.joints],
      ],
    },
  };
}

/** Relief that there is no room for. */
function troublesWithRelief({ relief, reliefWidth }: BoxNumbers, worked: readonly WorkedPlate[]): Trouble[] {
  if (relief === 'none') return [];
  const most =
    2 *
    Math.min(
      ...worked.flatMap(({ outline, holes }) => [
        mostRelief(outline, false, relief),
        ...holes.map((hole) => mostRelief(hole, true, relief)),
      ]),
    );
  if (reliefWidth <= most) return [];
  const message = `Relief of ${reliefWidth} mm does not fit into the smallest corner; ${roundedDown(most)} mm does.`;
  return [{ field: 'reliefWidth', message, nearest: most >= boxFields.reliefWidth.least ? roundedDown(most) : null }];
}

function partOf(
  worked: WorkedPlate,
  { relief, reliefWidth }: BoxNumbers,
  labels: ReadonlyMap<string, readonly Label[]>,
): Part {
  const { id, name } = worked.plate;
  return { id, name, cut: cutOf(worked, relief, reliefWidth / 2), score: emptyPath, labels: labels.get(id) ?? [] };
}

/** A plate's outline and its holes, with relief of this radius. */
function cutOf({ outline, bows, holes, curved }: WorkedPlate, relief: Relief, radius: number): Path {
  const builder = new PathBuilder();
  addRelieved(builder, outline, false, relief, radius, bows);
  for (const hole of holes) addRelieved(builder, hole, true, relief, radius);
  for (const path of curved) appendPath(builder, path, true);
  return builder.build();
}

const ringsOf = (path: Path) => flatten(path).map(({ points }) => [...points]);

const sumOf = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** Openings for hinges and for dividers that are nearer to each other than the stock is thick. */
function troublesAtHinges({ hinges }: BoxNumbers, dividers: Dividers, hinge: HingePlan, t: number): Trouble[] {
  const behind = dividers.openings.filter(({ wallId }) => wallId === 'back');
  const isInWay = hinge.openings
    .filter(({ plateId }) => plateId === 'back')
    .some(({ box }) => behind.some((opening) => sharedBox(grownBox(box, t), opening.box)));
  if (!isInWay) return [];
  const message = `${hinges} hinges come where dividers go through the back: take another number of either.`;
  return [{ field: 'hinges', message, nearest: null }];
}

/** An outline with notches in its upper edge, each as wide and as deep as a box that reaches up to it. */
function notched(outline: readonly number[], boxes: readonly Box[]): readonly number[] {
  return boxes.reduce((ring, { minX, maxX, minY, maxY }) => {
    const index = upperEdge(ring, minX, maxX, minY);
    return [...ring.slice(0, index), minX, minY, minX, maxY, maxX, maxY, maxX, minY, ...ring.slice(index)];
  }, outline);
}

/** Behind which coordinate of a ring, which goes round with its upper edge to the right, a stretch of that edge lies. */
function upperEdge(ring: readonly number[], minX: number, maxX: number, y: number): number {
  for (let i = 0; i < ring.length; i += 2) {
    const next = (i + 2) % ring.length;
    const isLevel = Math.abs(ring[i + 1] - y) < 1e-9 && Math.abs(ring[next + 1] - y) < 1e-9;
    if (isLevel && ring[i] <= minX + 1e-9 && maxX <= ring[next] + 1e-9) return i + 2;
  }
  throw new RangeError(`notched: no upper edge holds ${minX} to ${maxX}`);
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
