import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { checkJob } from './checks/check.ts';
import { drawnPaint } from './colours/drawn.ts';
import { operationColourKey } from './colours/key.ts';
import { jobFromJson, jobToJson } from './document/json.ts';
import { setLayer } from './edits/layers.ts';
import { box, item, jobWith, line, machine, material, shop } from './fixtures/shop.ts';
import { writeGcode } from './formats/gcode/write.ts';
import { gatherOutgoing } from './formats/outgoing.ts';
import { prepareWithPictures } from './formats/picture/to-burn.ts';
import { writeSvg } from './formats/svg/write.ts';
import type { OperationDefinition } from './operations/definition.ts';
import {
  addOperation,
  type BurntOperation,
  burntOperations,
  operationOf,
  operations,
} from './operations/operations.ts';
import { planJob } from './plan/plan.ts';
import { picturesToBurn, prepareJob } from './plan/prepare.ts';
import { bookFromText, bookToText } from './recipes/book/book-json.ts';
import type { Recipe } from './recipes/book/recipe.ts';
import { cardKinds, cardWish } from './recipes/cards/card-wish.ts';
import { layCard } from './recipes/cards/test-card.ts';
import { settingsOf } from './settings/settings.ts';

/*
 * An operation is one definition: this one goes from a key to a program, a finding, a recipe and an export, and is
 * known to no other file.
 */

const crease: OperationDefinition = {
  name: 'Crease',
  plural: 'Creases',
  colour: '#123ABC',
  dash: [2, 2],
  letter: 'R',
  burning: { traces: 'lines', separates: false, phase: 2.5, verb: 'creases', firstEnergy: 0.03 },
};
const operation = 'crease' as BurntOperation;

let remove = () => {};
beforeAll(() => {
  remove = addOperation(operation, crease);
});
afterAll(() => remove());

const recipe = { ...material.recipes[1], operation, powerPercent: 7, speedMmPerS: 111 };
const shopWith = (recipes: readonly Recipe[] = [...material.recipes, recipe]) => ({
  ...shop,
  keys: [operationColourKey('house', 'House key')],
  materials: [{ ...material, recipes }],
});
const drawing = () => [
  item(box(10, 10, 80), 'cut'),
  item(line(20, 20, 60, 20), operation),
  item(box(20, 40, 10), 'engrave'),
  item(line(20, 30, 60, 30), 'score'),
];

test('lists have it, with the settings of what it burns along', () => {
  expect(operations).toContain(operation);
  expect(burntOperations).toContain(operation);
  expect(settingsOf(operation)).toEqual(settingsOf('score'));
  expect(() => addOperation(operation, crease)).toThrow(RangeError);
});

test('the house key reads its colour, and what is drawn with it has that colour', () => {
  const prepared = prepareJob(jobWith(drawing()), shopWith());
  const layer = prepared.layers.find(({ id }) => id === operation);
  expect(layer?.placed).toHaveLength(1);
  expect(layer?.layer).toMatchObject({ name: 'Crease', operation });
  expect(drawnPaint(prepared.key, operation)).toMatchObject({ paint: { stroke: '#123ABC', fill: null }, pinned: null });
});

test('it burns in its phase, with its recipe, and is in the program', () => {
  const prepared = prepareJob(jobWith(drawing()), shopWith());
  const plan = planJob(prepared);
  expect(plan.steps.map((step) => step.operation)).toEqual(['engrave', 'score', operation, 'cut']);
  const step = plan.steps[2];
  expect(step.settings).toMatchObject({ powerPercent: 7, speedMmPerS: 111 });
  expect(step.litMm).toBeCloseTo(40, 9);
  const program = [...writeGcode(plan, 'Trial')];
  expect(program.some((text) => text.includes(`F${111 * 60}`))).toBe(true);
});

test('without a recipe it is a finding, and so is a line of it that is drawn twice', () => {
  const find = (recipes?: readonly Recipe[], more = drawing()) => {
    const prepared = prepareJob(jobWith(more), shopWith(recipes));
    return checkJob(prepared, planJob(prepared));
  };
  expect(find(material.recipes).find(({ code }) => code === 'no-recipe')?.message).toContain('(crease, ');
  const twice = find(undefined, [...drawing(), item(line(20, 20, 60, 20), operation)]);
  expect(twice.find(({ code }) => code === 'line-drawn-twice')?.message).toContain('40.0 mm');
});

test('the book keeps its recipes', () => {
  const book = [{ ...material, recipes: [recipe] }];
  expect(bookFromText(bookToText(book))[0].recipes).toEqual([recipe]);
});

test('what the machine cannot do is said in its word', () => {
  const slow = { ...machine, topSpeeds: { [operation]: 50 } };
  const { layers } = prepareJob(jobWith(drawing()), { ...shopWith(), machines: [slow] });
  const { beyond } = layers.find(({ id }) => id === operation) ?? { beyond: [] };
  expect(beyond.map(({ sentence }) => sentence)).toEqual([
    `Speed is 111 mm/s; ${machine.name} creases at more than 0 and up to 50 mm/s.`,
  ]);
});

test('it has test cards that start from its energy', () => {
  expect(cardKinds(operation).map(({ id }) => id)).toEqual(['power-speed', 'passes', 'focus']);
  const { wish, ground } = cardWish({ ...shop, materials: [] }, { material: null }, machine, operation, 'power-speed');
  expect(ground).toBe('nothing');
  const { settings } = layCard(wish).cells[0];
  expect(settings.kerfMm).toBe(0);
  const joules = (60 * 0.2) / 0.03;
  expect(wish.across.from).toBeLessThan(joules);
  expect(wish.across.to).toBeGreaterThan(joules);
});

test('it goes out on a layer of its own, between scores and cuts', () => {
  const prepared = prepareJob(jobWith(drawing()), shopWith());
  const page = { minX: 0, minY: 0, maxX: 500, maxY: 300 };
  const outgoing = gatherOutgoing(prepared, page, {
    paints: 'by-operation',
    guides: true,
    only: null,
    onlyBurnt: false,
  });
  expect(outgoing.layers.map(({ name }) => name)).toEqual(['Engrave', 'Score', 'Crease', 'Cut']);
  expect(writeSvg(outgoing).toUpperCase()).toContain('STROKE="#123ABC"');
});

describe('one whose power follows tones', () => {
  const dots = 'dots' as BurntOperation;
  const fill = {
    traces: 'areas',
    separates: false,
    followsTone: true,
    phase: 1,
    verb: 'dots',
    firstEnergy: 0.2,
  } as const;
  const definition = { ...crease, name: 'Dots', colour: '#456DEF', burning: fill };
  let removeDots = () => {};
  beforeAll(() => {
    removeDots = addOperation(dots, definition);
  });
  afterAll(() => removeDots());

  const pixels = { width: 2, height: 1, rgb: Uint8Array.of(0, 0, 0, 102, 102, 102) };
  const photo = {
    ...item(box(0, 0, 1), null),
    shape: { kind: 'picture', pictureId: 'p', width: 2, height: 1 } as const,
    matrix: [5, 0, 0, 5, 30, 40] as const,
  };
  const dotted = { ...recipe, operation: dots, lineSpacingMm: 1, grain: 'true-greys' as const };
  const job = (on: string | null) => jobWith([{ ...photo, pinned: on }, item(box(60, 60, 5), 'cut')]);
  const unpacked = async () => pixels;
  const prepared = (on: string | null) =>
    prepareWithPictures(job(on), shopWith([...material.recipes, dotted]), {}, unpacked);

  test('burns the pictures that are put on it, and they are no finding', async () => {
    const ready = await prepared(dots);
    expect([...picturesToBurn(ready)]).toEqual(['p']);
    const plan = planJob(ready);
    expect(plan.steps.map((step) => [step.operation, step.litMm])).toEqual([
      [dots, 50],
      ['cut', 20],
    ]);
    expect(checkJob(ready, plan).map(({ code }) => code)).not.toContain('picture-not-burnt');
    // Of 7 % power, all for black and 0.6 for the grey.
    const powers = [...writeGcode(plan, 'Photo')].map((text) => /S(\d+)/.exec(text)?.[1]).filter((power) => power);
    expect(powers).toEqual(expect.arrayContaining(['70', '42']));
  });

  test('says where a run-up is cut short, and only there', async () => {
    const [ready, edge] = [
      jobWith([{ ...photo, pinned: dots }]),
      jobWith([{ ...photo, pinned: dots, matrix: [5, 0, 0, 5, 1, 40] }]),
    ];
    const shortIn = async (at: typeof ready) => {
      const lists = shopWith([...material.recipes, dotted]);
      return planJob(await prepareWithPictures(at, lists, {}, unpacked)).steps.map(({ runUpShort }) => runUpShort);
    };
    expect(await shortIn(ready)).toEqual([false]);
    expect(await shortIn(edge)).toEqual([true]);
  });

  test('asks for no picture that is only shown, and says that it does not burn', async () => {
    const shown = await prepareWithPictures(job('engrave'), shopWith(), {}, () => Promise.reject(new Error('asked')));
    expect(checkJob(shown, planJob(shown)).map(({ code }) => code)).toContain('picture-not-burnt');
  });

  test('is not planned without its pixels, for a picture is never left out in silence', () => {
    const without = prepareJob(job(dots), shopWith([...material.recipes, dotted]));
    expect(() => planJob(without)).toThrow('the picture p burns, and its pixels are not at hand');
  });
});

test('documents hold layers of it; without it, they say which operations there are', () => {
  const job = setLayer(jobWith(drawing()), { id: 'fold', name: 'Fold', operation });
  const json = JSON.parse(JSON.stringify(jobToJson(job)));
  expect(jobFromJson(json).layers).toEqual(job.layers);
  expect(operationOf(operation)).toBe(crease);
  remove();
  expect(() => operationOf(operation)).toThrow('there is no operation “crease”');
  expect(() => jobFromJson(json)).toThrow('must be cut, score, engrave, photo, guide, note');
  remove = addOperation(operation, crease);
});
