import type { Trouble } from '../fields.ts';
import { pressedTrouble } from '../fit-fields.ts';
import { depthIn, reachOf } from '../forms.ts';
import { rounded, roundedDown } from '../rounding.ts';
import { type BaseNumbers, type Forms, pinsOf } from './base-numbers.ts';

/** Walls are no thinner than that, and what a plate lies on no narrower, in mm. */
const thinnest = 1.5;

/** What is wrong with numbers that are each within their limits. */
export function troublesWith(numbers: BaseNumbers, { outline, pocket, rebate, side }: Forms): Trouble[] {
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
      const nearest = roundedDown(numbers[field] - 2 * over);
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
    const most = roundedDown(2 * (narrowest - 0.05));
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
