import { flatten } from '../../geometry/paths/flatten.ts';
import type { Matrix } from '../../geometry/paths/matrix.ts';
import { appendPath, emptyPath, type Path, PathBuilder, transformPath } from '../../geometry/paths/path.ts';
import type { Joint } from '../assembly/assembly.ts';
import type { Place, Solid, Vec3 } from '../assembly/space.ts';
import type { Builder, Built, Part, Stock } from '../builder.ts';
import { playIn } from '../fit-fields.ts';
import { channelPath, type Form, formPath, notchedPath, reachOf, turnedForm } from '../forms.ts';
import { type BaseNumbers, baseFields, type Forms, formsOf, pinsOf } from './base-numbers.ts';
import { troublesWith } from './base-troubles.ts';

/** Layers of one outline that are glued on each other, with pockets and channels in some of them. */
export const layeredBase: Builder<typeof baseFields> = {
  id: 'layered-base',
  word: 'base',
  name: 'Layered base',
  about: 'Layers of one outline, with a pocket, a channel and pin holes, stacked to a base.',
  fields: baseFields,
  asks: ({ outline, pocket, fit, channel, plate, pins }) =>
    (Object.keys(baseFields) as (keyof typeof baseFields)[]).filter((field) => {
      if (field === 'depth' || field === 'corner') return outline === 'rectangle';
      if (field === 'pocketWidth' || field === 'pocketLayers') return pocket !== 'none';
      if (field === 'pocketDepth') return pocket === 'rectangle';
      if (field === 'fit') return pocket !== 'none' || plate;
      if (field === 'play') return (pocket !== 'none' || plate) && fit === 'typed';
      if (field === 'channelWidth' || field === 'channelFrom' || field === 'channelTo') return channel !== 'none';
      if (field === 'plateWidth') return plate;
      if (field === 'plateDepth') return plate && pocket !== 'round';
      return (field !== 'pinWidth' && field !== 'pinInset') || pins !== 'none';
    }),
  build: (numbers, stock) => {
    const forms = formsOf(numbers, playIn(numbers, stock));
    const troubles = troublesWith(numbers, forms);
    return troubles.length > 0 ? troubles : built(numbers, forms, stock);
  },
};

/** A channel is drawn to the front, and turned to where it goes. */
const turns: Readonly<Record<BaseNumbers['channel'], 0 | 1 | 2 | 3>> = {
  none: 0,
  front: 0,
  left: 1,
  back: 2,
  right: 3,
};

function built(numbers: BaseNumbers, { outline, pocket, rebate, side }: Forms, { thicknessMm: t }: Stock): Built {
  const { layers, pocketLayers, channel, channelFrom, channelTo, channelWidth, pins, pinWidth } = numbers;
  const turn = turns[channel];
  const quarter: Matrix = [
    [1, 0, 0, 1],
    [0, 1, -1, 0],
    [-1, 0, 0, -1],
    [0, -1, 1, 0],
  ][turn].concat(0, 0) as unknown as Matrix;
  const toward = (form: Form) => (turn % 2 === 1 ? turnedForm(form) : form);
  const half = channel === 'none' ? 0 : channelWidth / 2;
  const turned = (path: Path) => (turn === 0 ? path : transformPath(path, quarter));
  const whole = (form: Form) => turned(formPath(toward(form), half));
  const pinPaths = pinsOf(numbers, outline).map(([x, y]) =>
    transformPath(formPath({ kind: 'round', radius: pinWidth / 2 }, 0), [1, 0, 0, 1, x, y]),
  );
  const topOf = (layer: number): Place => ({ origin: [0, 0, layer * t], u: [1, 0, 0], v: [0, -1, 0] });
  const solids: Solid[] = [];
  const voids: Omit<Solid, 'partId'>[] = [];
  const parts: Part[] = [];
  const put = (id: string, name: string, cut: Path, layer: number, isInner = false) => {
    parts.push({ id, name, cut, score: emptyPath, labels: [] });
    solids.push({ partId: id, outlines: flatten(cut), place: topOf(layer), depth: t, isInner });
  };
  for (let layer = 1; layer <= layers; layer++) {
    const inPocket = layer > layers - pocketLayers ? pocket : null;
    const opening = rebate && layer === layers ? rebate : inPocket;
    const hasChannel = channel !== 'none' && channelFrom <= layer && layer <= channelTo;
    const hasPins = pins === 'all' || (pins === 'hidden' && layer < layers);
    const free = (path: Path) => voids.push({ outlines: flatten(path), place: topOf(layer), depth: t });
    const paths: Path[] = [];
    if (hasChannel) {
      const inner = opening && toward(opening);
      paths.push(turned(notchedPath(toward(outline), inner, half)));
      free(turned(channelPath(toward(outline), inner, half)));
    } else {
      paths.push(whole(outline), ...(opening ? [whole(opening)] : []));
    }
    if (opening) free(whole(opening));
    if (hasPins) {
      paths.push(...pinPaths);
      for (const pin of pinPaths) free(pin);
    }
    const cut = new PathBuilder();
    for (const path of paths) appendPath(cut, path, true);
    const words = layer === layers ? ', top' : layer === 1 ? ', lowest' : '';
    put(`layer-${layer}`, `Layer ${layer}${words}`, cut.build(), layer);
  }
  const joints: Joint[] = [];
  if (rebate) {
    const plate: Form =
      rebate.kind === 'round'
        ? { kind: 'round', radius: rebate.radius - side }
        : { ...rebate, halfX: rebate.halfX - side, halfY: rebate.halfY - side };
    put('plate', 'Plate', whole(plate), layers, true);
    joints.push(...plateJoints(outline, layers, t, side, turn % 2 === 1 ? 1 : 0));
  }
  const size: Vec3 = [2 * reachOf(outline, 'x'), 2 * reachOf(outline, 'y'), layers * t];
  return {
    parts,
    sizes: { inside: null, outside: size },
    playMm: 2 * side,
    assembly: {
      solids,
      hull: [{ outlines: flatten(whole(outline)), place: topOf(layers), depth: layers * t }],
      voids,
      joints,
    },
  };
}

/** A plate in its rebate, looked at along its middle and across the channel: where both are round they are exact there. */
function plateJoints(outline: Form, layers: number, t: number, side: number, axis: 0 | 1): Joint[] {
  const [reach, sliver] = [reachOf(outline, axis === 0 ? 'x' : 'y') - 0.5, 0.005];
  const corner = (along: number, off: number, z: number): Vec3 => (axis === 0 ? [along, off, z] : [off, along, z]);
  return [-1, 1].map((way): Joint => {
    const [from, to] = way < 0 ? [-reach, 0] : [0, reach];
    return {
      name: 'Plate in its rebate',
      region: { min: corner(from, -sliver, (layers - 1) * t), max: corner(to, sliver, layers * t) },
      axis,
      faces: 'all',
      gapMm: side,
      isFree: true,
    };
  });
}
