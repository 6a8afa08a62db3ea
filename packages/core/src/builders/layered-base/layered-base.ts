import { flatten } from '../../geometry/paths/flatten.ts';
import type { Matrix } from '../../geometry/paths/matrix.ts';
import { appendPath, emptyPath, type Path, PathBuilder, transformPath } from '../../geometry/paths/path.ts';
import type { Joint } from '../assembly/assembly.ts';
import type { Place, Solid, Vec3 } from '../assembly/space.ts';
import type { Builder, Built, Part, Stock } from '../builder.ts';
import { choice, count, length, type NumbersOf, type Trouble, yes } from '../fields.ts';
import { playIn, pressedTrouble, slidingFields } from '../fit-fields.ts';
import { channelPath, depthIn, type Form, formPath, notchedPath, reachOf, turnedForm } from './layer-outline.ts';

const mostMm = 2000;

const fields = {
  outline: choice('Outline', 'rectangle', { rectangle: 'Rectangle', round: 'Round' }),
  width: length('Width', 120, [5, mostMm]),
  depth: length('Depth', 80, [5, mostMm]),
  corner: length('Corner radius', 6, [0, 500]),
  layers: count('Layers', 3, [1, 40]),
  pocket: choice('Pocket', 'rectangle', { none: 'None', rectangle: 'Rectangle', round: 'Round' }),
  pocketWidth: length('Goes in: width', 60, [1, mostMm], 'Of what goes in; the pocket is wider by the fit.'),
  pocketDepth: length('Goes in: depth', 40, [1, mostMm], 'Of what goes in.'),
  pocketLayers: count('Pocket through layers', 2, [1, 40], 'Counted from the top.'),
  ...slidingFields('Fit of what goes in'),
  channel: choice('Channel', 'none', {
    none: 'None',
    front: 'To the front',
    back: 'To the back',
    left: 'To the left',
    right: 'To the right',
  }),
  channelWidth: length('Channel width', 8, [0.5, mostMm]),
  channelFrom: count('Channel from layer', 2, [1, 40], 'Layer 1 is the lowest.'),
  channelTo: count('Channel to layer', 2, [1, 40]),
  plate: yes('A plate let into the top', false),
  plateWidth: length('Plate width', 80, [1, mostMm]),
  plateDepth: length('Plate depth', 55, [1, mostMm]),
  pins: choice('Pin holes', 'all', { none: 'None', all: 'Through all layers', hidden: 'Not through the top' }),
  pinWidth: length('Pin width', 3, [0.3, 50]),
  pinInset: length('Pins from the edge', 8, [0.5, 500], 'To the middle of the pin.'),
} as const;

type BaseNumbers = NumbersOf<typeof fields>;

/** Layers of one outline that are glued on each other, with pockets and channels in some of them. */
export const layeredBase: Builder<typeof fields> = {
  id: 'layered-base',
  word: 'base',
  name: 'Layered base',
  about: 'Layers of one outline, with a pocket, a channel and pin holes, stacked to a base.',
  fields,
  asks: ({ outline, pocket, fit, channel, plate, pins }) =>
    (Object.keys(fields) as (keyof typeof fields)[]).filter((field) => {
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

interface Forms {
  readonly outline: Form;
  readonly pocket: Form | null;
  /** What the plate is let into; null without a plate. */
  readonly rebate: Form | null;
  /** Half of what is free between a plate and its rebate, and a thing and its pocket. */
  readonly side: number;
}

function formsOf(numbers: BaseNumbers, playMm: number): Forms {
  const { outline, width, depth, corner, pocket, pocketWidth, pocketDepth, plate, plateWidth, plateDepth } = numbers;
  const side = playMm / 2;
  const opening = (isRound: boolean, wide: number, deep: number): Form =>
    isRound
      ? { kind: 'round', radius: wide / 2 + side }
      : { kind: 'rectangle', halfX: wide / 2 + side, halfY: deep / 2 + side, corner: 0 };
  return {
    outline:
      outline === 'round'
        ? { kind: 'round', radius: width / 2 }
        : { kind: 'rectangle', halfX: width / 2, halfY: depth / 2, corner },
    pocket: pocket === 'none' ? null : opening(pocket === 'round', pocketWidth, pocketDepth),
    rebate: plate ? opening(pocket === 'round', plateWidth, plateDepth) : null,
    side,
  };
}

/** Walls are no thinner than that, and what a plate lies on no narrower, in mm. */
const thinnest = 1.5;

const rounded = (mm: number) => Math.round(mm * 100) / 100;
const floored = (mm: number) => Math.floor(mm * 100 + 1e-6) / 100;

function troublesWith(numbers: BaseNumbers, { outline, pocket, rebate, side }: Forms): Trouble[] {
  const { layers, pocketLayers, channel, channelFrom, channelTo, channelWidth, pins, pinWidth, plate } = numbers;
  const troubles: Trouble[] = [];
  const add = (field: keyof BaseNumbers, message: string, nearest: number | null) =>
    troubles.push({ field, message, nearest });
  if (outline.kind === 'rectangle') {
    const most = Math.min(outline.halfX, outline.halfY);
    if (outline.corner > most) {
      add('corner', `A corner of ${outline.corner} mm is more than half of the shorter side.`, most);
      return troubles;
    }
  }
  const openings = [
    { form: pocket, words: 'pocket', width: 'pocketWidth', depth: 'pocketDepth' },
    { form: rebate, words: 'plate', width: 'plateWidth', depth: 'plateDepth' },
  ] as const;
  for (const { form, words, width, depth } of openings) {
    if (!form) continue;
    for (const [field, axis] of [
      [width, 'x'],
      [depth, 'y'],
    ] as const) {
      if (form.kind === 'round' && axis === 'y') continue;
      const room =
        form.kind === 'round' ? Math.min(reachOf(outline, 'x'), reachOf(outline, 'y')) : reachOf(outline, axis);
      const over = reachOf(form, axis) - (room - thinnest);
      if (over <= 1e-9) continue;
      const nearest = floored(numbers[field] - 2 * over);
      const message = `The ${words} leaves no wall: ${numbers[field]} mm and the fit come within ${thinnest} mm of the edge.`;
      add(field, message, nearest >= 1 ? nearest : null);
    }
    if (troubles.length > 0 || form.kind === 'round') continue;
    if (depthIn(outline, form.halfX, form.halfY) < thinnest) {
      const message = `The corners of the ${words} come within ${thinnest} mm of the edge.`;
      add(width, message, null);
    }
  }
  if (troubles.length > 0) return troubles;
  if (pocket && pocketLayers > layers) {
    add('pocketLayers', `The pocket goes through ${pocketLayers} layers, and there are ${layers}.`, layers);
  }
  if (pocket && rebate) {
    for (const [field, own, axis] of [
      ['plateWidth', 'pocketWidth', 'x'],
      ['plateDepth', 'pocketDepth', 'y'],
    ] as const) {
      if (pocket.kind === 'round' && axis === 'y') continue;
      if (reachOf(rebate, axis) - reachOf(pocket, axis) >= thinnest - 1e-9) continue;
      const least = numbers[own] + 2 * thinnest;
      add(field, `The plate would fall into the pocket: it lies on ${thinnest} mm at each side at least.`, least);
    }
    if (pocketLayers < 2) add('pocketLayers', 'The plate takes the top layer: the pocket begins below it.', 2);
  }
  if (plate && side < 0) {
    troubles.push(
      pressedTrouble(numbers, `The plate is ${rounded(-2 * side)} mm wider than its place, and would not lie flat.`),
    );
  }
  if (plate && layers < 2) add('layers', 'A plate takes a layer, and lies on another.', 2);
  if (channel !== 'none') {
    if (channelFrom > layers) add('channelFrom', `There are ${layers} layers.`, layers);
    if (channelTo > layers) add('channelTo', `There are ${layers} layers.`, layers);
    if (channelTo < channelFrom) add('channelTo', `The channel begins at layer ${channelFrom}.`, channelFrom);
    const across = channel === 'front' || channel === 'back' ? 'x' : 'y';
    const edge = reachOf(outline, across) - (outline.kind === 'rectangle' ? outline.corner : thinnest);
    const narrowest = Math.min(edge, ...[pocket, rebate].flatMap((form) => (form ? [reachOf(form, across)] : [])));
    const most = floored(2 * (narrowest - 0.05));
    if (channelWidth > most) {
      const message = `A channel of ${channelWidth} mm is as wide as what it leaves; it can be ${rounded(most)} mm.`;
      add('channelWidth', message, most >= 0.5 ? most : null);
    }
  }
  if (troubles.length === 0 && pins !== 'none') {
    const radius = pinWidth / 2;
    const [[x, y]] = pinsOf(numbers, outline);
    const toEdge = depthIn(outline, x, y) - radius;
    const fromOpening = Math.min(...[pocket, rebate].flatMap((form) => (form ? [-depthIn(form, x, y)] : []))) - radius;
    const across = channel === 'front' || channel === 'back' ? x : y;
    const fromChannel = channel === 'none' ? Number.POSITIVE_INFINITY : Math.abs(across) - channelWidth / 2 - radius;
    const fromEachOther = 2 * Math.min(Math.abs(x), Math.abs(y)) - pinWidth;
    if (toEdge < thinnest) {
      add('pinInset', `Pin holes come within ${thinnest} mm of the edge.`, null);
    } else if (Math.min(fromOpening, fromChannel, fromEachOther) < thinnest) {
      add('pinInset', `Pin holes come within ${thinnest} mm of the pocket, the channel or each other.`, null);
    }
  }
  return troubles;
}

/** Where pins go: at the corners, or as far from a round edge on its diagonals. */
function pinsOf({ pinInset }: BaseNumbers, outline: Form): (readonly [x: number, y: number])[] {
  const [x, y] =
    outline.kind === 'round'
      ? [0, 0].map(() => (outline.radius - pinInset) * Math.SQRT1_2)
      : [outline.halfX - pinInset, outline.halfY - pinInset];
  return [
    [x, y],
    [-x, y],
    [-x, -y],
    [x, -y],
  ];
}

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
  const outlinesOf = (path: Path) => flatten(path).map(({ points }) => ({ points, closed: true }));
  const solids: Solid[] = [];
  const voids: Omit<Solid, 'partId'>[] = [];
  const parts: Part[] = [];
  const put = (id: string, name: string, cut: Path, layer: number, isInner = false) => {
    parts.push({ id, name, cut, score: emptyPath, labels: [] });
    solids.push({ partId: id, outlines: outlinesOf(cut), place: topOf(layer), depth: t, isInner });
  };
  for (let layer = 1; layer <= layers; layer++) {
    const inPocket = layer > layers - pocketLayers ? pocket : null;
    const opening = rebate && layer === layers ? rebate : inPocket;
    const hasChannel = channel !== 'none' && channelFrom <= layer && layer <= channelTo;
    const hasPins = pins === 'all' || (pins === 'hidden' && layer < layers);
    const free = (path: Path) => voids.push({ outlines: outlinesOf(path), place: topOf(layer), depth: t });
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
      hull: [{ outlines: outlinesOf(whole(outline)), place: topOf(layers), depth: layers * t }],
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
