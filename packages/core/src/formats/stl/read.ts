import { type ReadingChoices, type SolidSide, solidSides } from '../../document/arrival.ts';
import type { Item } from '../../document/item.ts';
import { outlineOf } from '../../document/shapes.ts';
import { boxHeight, boxWidth, emptyBox, uniteBoxes } from '../../geometry/paths/box.ts';
import { multiply, scaling, translation } from '../../geometry/paths/matrix.ts';
import { type Path, pathBounds } from '../../geometry/paths/path.ts';
import { Notes, type Reading } from '../reading.ts';
import { FileRefused } from '../refusal.ts';
import { type Mesh, readMesh } from './parse.ts';
import { laidOn, tiltedAxis } from './shells.ts';
import { silhouette, sliceShells } from './slice.ts';

/**
 * Reads the outline of a solid from STL, binary or ASCII: cut at a height, or all that it covers. As
 * usual it lies with its thinnest side up and is cut in the middle, which of a flat part is its outline.
 *
 * @throws FileRefused when there is nothing in the file, or nothing where it is cut
 */
export function readStl(bytes: Uint8Array, idFor: (place: string) => string, choices: ReadingChoices = {}): Reading {
  const notes = new Notes();
  const { mesh, damaged } = readMesh(bytes);
  if (damaged > 0)
    notes.add('left-out', 'damaged-triangle', 'a triangle that makes no sense was left out', [], damaged);
  const axis = choices.up === undefined ? tiltedAxis(mesh) : null;
  const lying = axis ? laidOn(mesh, axis) : turned(mesh, choices.up ?? thinnestSide(mesh));
  if (axis) notes.add('changed', 'laid-flat', 'the solid stands tilted in the file, and was laid on its largest face');
  const [low, high] = span(lying, 2);
  const cutAt = choices.cutAt ?? 0.5;
  const ids: string[] = [];
  const items: Item[] = [];
  const add = (path: Path, part: string, name: string) => {
    const id = idFor(part);
    ids.push(id);
    items.push({
      id,
      name,
      shape: { kind: 'path', path },
      matrix: scaling(1, -1),
      paint: { stroke: '#000000', strokeWidthMm: 0.1, fill: null },
      fillRule: 'evenodd',
      groupId: null,
      pinned: null,
      hidden: false,
    });
    return id;
  };
  if (cutAt === 'outline') add(silhouette(lying), 'outline', 'Outline of the solid');
  else {
    // Right at the top or bottom there is nothing to cut.
    const share = Math.min(1 - 1e-6, Math.max(1e-6, cutAt));
    const { closed, open, united } = sliceShells(lying, low + (high - low) * share);
    if (closed.verbs.length > 0) {
      const id = add(closed, 'slice', 'Slice of the solid');
      if (united) notes.add('taken', 'solids-united', 'solids that overlap are taken as one', [id]);
    }
    if (open) {
      const id = add(open, 'open', 'Open edges of the solid');
      notes.add('changed', 'open-mesh', 'the solid is not closed: where it is cut, its outline has gaps', [id]);
    }
  }
  if (items.length === 0)
    throw new FileRefused('The solid has no outline where it is cut. Choose another height or side.');
  const bounds = items.map((item) => pathBounds(outlineOf(item.shape))).reduce(uniteBoxes, emptyBox);
  const placed = items.map((item) => ({
    ...item,
    matrix: multiply(translation(-bounds.minX, bounds.maxY), item.matrix),
  }));
  notes.add(
    'taken',
    'solid',
    cutAt === 'outline' ? 'all that the solid covers is taken' : 'the solid’s outline where it is cut is taken',
    ids,
  );
  return {
    format: 'stl',
    drawing: { items: placed, groups: [] },
    pictures: [],
    size: {
      pageWidthMm: boxWidth(bounds),
      pageHeightMm: boxHeight(bounds),
      mmPerUnit: 1,
      from: 'STL has no units; mm taken',
      sure: false,
      others: [
        { label: '1 unit = 1 mm', factor: 1 },
        { label: '1 unit = 1 inch', factor: 25.4 },
        { label: '1 unit = 1 cm', factor: 10 },
      ],
    },
    notes: notes.list(),
    pageCount: 1,
  };
}

/** How far a mesh reaches along an axis: 0, 1 or 2 for x, y or z. */
function span(mesh: Mesh, axis: number): [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity];
  for (let i = axis; i < mesh.length; i += 3) {
    low = Math.min(low, mesh[i]);
    high = Math.max(high, mesh[i]);
  }
  return [low, high];
}

function thinnestSide(mesh: Mesh): SolidSide {
  const [x, y, z] = [0, 1, 2].map((axis) => {
    const [low, high] = span(mesh, axis);
    return high - low;
  });
  if (z <= x && z <= y) return '+z';
  return y <= x ? '+y' : '+x';
}

/** The mesh turned so that a side of it faces up, seen from there. */
function turned(mesh: Mesh, up: SolidSide): Mesh {
  if (!solidSides.includes(up)) throw new RangeError(`readStl: “${up}” is not a side`);
  const out = new Float64Array(mesh.length);
  const put: Record<SolidSide, (x: number, y: number, z: number) => [number, number, number]> = {
    '+z': (x, y, z) => [x, y, z],
    '-z': (x, y, z) => [-x, y, -z],
    '+y': (x, y, z) => [x, -z, y],
    '-y': (x, y, z) => [x, z, -y],
    '+x': (x, y, z) => [y, z, x],
    '-x': (x, y, z) => [-y, z, -x],
  };
  for (let i = 0; i < mesh.length; i += 3) out.set(put[up](mesh[i], mesh[i + 1], mesh[i + 2]), i);
  return out;
}
