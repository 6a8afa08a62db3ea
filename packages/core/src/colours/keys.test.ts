import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { assignPaint, pinItems, setKey } from '../edits/items.ts';
import { mergeLayer, setLayer } from '../edits/layers.ts';
import { box, item, jobWith, line, rule, shop } from '../fixtures/shop.ts';
import { betterKey } from './best-key.ts';
import { deriveMeaning } from './derive.ts';
import { type ColourKey, colourDistance, layerByKey, operationColourKey, standardLayers } from './key.ts';
import { changeOfKey, keyFromJob, keyThatTakes, keyTroubles } from './key-change.ts';
import { keyFromJson, keyFromText, keyToJson, NotAKey } from './key-json.ts';
import { inPrint, kindChangeOf, nearMisses } from './near-miss.ts';

const [house] = shop.keys;
const stroked = (colour: string, count = 1) =>
  Array.from({ length: count }, (_, i) =>
    item(line(0, i, 30, i), null, { paint: { stroke: colour, strokeWidthMm: 0.1, fill: null } }),
  );
const missesOf = (items: ReturnType<typeof stroked>, key: ColourKey = house) =>
  nearMisses(deriveMeaning(jobWith(items), key).paints, key);

describe('the key that fits what arrives', () => {
  const named = (id: string, ...colours: string[]): ColourKey => ({
    ...house,
    id,
    rules: colours.map((colour) => rule({ colour })),
  });
  const byWidth = {
    ...house,
    id: 'width',
    rules: [rule({ minWidthMm: 0, maxWidthMm: 0.2 }), rule({ minWidthMm: 0.2 })],
  };
  const drawing = [...stroked('#112233'), ...stroked('#445566', 3), ...stroked('#778899')];
  const keys = [house, byWidth, named('two', '#112233', '#445566'), named('three', '#112233', '#445566', '#778899')];
  test('is the one that means most of its paints', () => {
    expect(betterKey(drawing, keys, house)).toMatchObject({ key: { id: 'three' }, meant: 3, paints: 3 });
    expect(betterKey(drawing, keys.slice(0, 3), house)).toMatchObject({ key: { id: 'two' }, meant: 2, paints: 3 });
  });
  test('is not offered where none is better, or it takes any colour', () => {
    expect(betterKey(drawing, keys, keys[3])).toBeNull();
    expect(betterKey(drawing, [house, byWidth], house)).toBeNull();
    expect(betterKey(stroked('#D0481E'), keys, house)).toBeNull();
    expect(
      betterKey(
        drawing.map((one) => ({ ...one, hidden: true })),
        keys,
        house,
      ),
    ).toBeNull();
    expect(betterKey([], keys, house)).toBeNull();
  });
  test('goes by width where that alone tells lines apart', () => {
    const [thin] = stroked('#123456');
    const thick = { ...thin, id: 'thick', paint: { ...thin.paint, strokeWidthMm: 0.5 } };
    expect(betterKey([thin, thick], [house, byWidth], house)).toMatchObject({ key: { id: 'width' }, meant: 2 });
  });
});

describe('near misses', () => {
  test('a colour a little off a rule’s is found, with how far', () => {
    const [miss, ...more] = missesOf(stroked('#C8552E', 3));
    expect(more).toEqual([]);
    expect(miss).toMatchObject({ kind: 'near', meant: '#D0481E', layerId: 'cut', rule: 0 });
    expect(miss.distance).toBeCloseTo(colourDistance('#D0481E', '#C8552E'), 9);
    expect(missesOf(stroked('#D0481E'))).toEqual([]);
    expect(missesOf(stroked('#1DD16F'))).toEqual([]);
  });

  test.each([
    ['#FF0000', '#ED1C24'],
    ['#0000FF', '#2E3192'],
    ['#00FF00', '#00A651'],
    ['#FFFFFF', '#FFFFFF'],
    ['#000000', '#231F20'],
  ])('%s comes back from print as %s', (screen, print) => {
    expect(inPrint(screen)).toBe(print);
  });

  test('a colour that went through print is known again, far off as it is', () => {
    const key = {
      ...operationColourKey('k', 'K'),
      rules: [rule({ colour: '#00FF00', layerId: 'score' }), rule({ colour: '#0000FF' })],
    };
    expect(colourDistance('#0000FF', '#2E3192')).toBeGreaterThan(12);
    expect(missesOf(stroked('#2F3390'), key)).toMatchObject([{ kind: 'converted', meant: '#0000FF', layerId: 'cut' }]);
    expect(missesOf(stroked('#02A44F'), key)).toMatchObject([
      { kind: 'converted', meant: '#00FF00', layerId: 'score' },
    ]);
  });

  test('two paints that look the same and mean different things', () => {
    const key = { ...house, rules: [rule({ colour: '#808080' }), rule({ colour: '#838383', layerId: 'note' })] };
    expect(missesOf([...stroked('#808080', 5), ...stroked('#838383')], key)).toMatchObject([
      { kind: 'alike', paint: { colour: '#838383' }, meant: '#808080', layerId: 'cut', rule: null },
    ]);
  });

  test('what treating it as meant would make of it is told, beyond its colour', () => {
    const changeOf = (items: ReturnType<typeof stroked>, key: ColourKey = house) => {
      const { paints, layers } = deriveMeaning(jobWith(items), key);
      return nearMisses(paints, key).map((miss) => kindChangeOf(miss, layers));
    };
    const filled = (colour: string) =>
      item(box(0, 0, 9), null, { paint: { stroke: null, strokeWidthMm: 0, fill: colour } });
    expect(changeOf(stroked('#C8552E'))).toEqual([null]);
    expect(changeOf(stroked('#6E58B0'))).toEqual(['line-to-area']);
    expect(changeOf([filled('#6E58B0')])).toEqual([null]);
    expect(changeOf([filled('#C8552E')])).toEqual(['area-to-line']);
    const shown = { ...house, rules: [rule({ colour: '#808080' }), rule({ colour: '#838383', layerId: 'note' })] };
    expect(changeOf([...stroked('#808080', 5), ...stroked('#838383')], shown)).toEqual(['would-burn']);
  });

  test('what the job has settled is left alone', () => {
    const items = stroked('#C8552E');
    const job = assignPaint(jobWith(items), { part: 'stroke', colour: '#C8552E', widthMm: 0.1 }, 'note');
    expect(nearMisses(deriveMeaning(job, house).paints, house)).toEqual([]);
  });

  test('treated as meant in the key: widened where that is clear of other rules, else a rule of its own', () => {
    const [miss] = missesOf(stroked('#C8552E'));
    const wider = keyThatTakes(house, miss.paint, miss.layerId, miss.rule);
    expect(wider.rules).toHaveLength(house.rules.length);
    expect(layerByKey(wider, { part: 'stroke', colour: '#C8552E', widthMm: 0.1 })).toBe('cut');
    const close = {
      ...house,
      rules: [rule({ colour: '#D0481E', tolerance: 1 }), rule({ colour: '#C65A34', tolerance: 1, layerId: 'score' })],
    };
    const own = keyThatTakes(close, miss.paint, 'cut', 0);
    expect(own.rules).toHaveLength(3);
    expect(layerByKey(own, { part: 'stroke', colour: '#C8552E', widthMm: 0.1 })).toBe('cut');
    expect(layerByKey(own, { part: 'stroke', colour: '#C65A34', widthMm: 0.1 })).toBe('score');
  });
});

describe('rules by grey and by width', () => {
  test('greys by their lightness, colours never', () => {
    const depths = {
      ...house,
      rules: [
        rule({ part: 'fill', grey: { from: 0, to: 33 }, layerId: 'deep' }),
        rule({ part: 'fill', grey: { from: 33, to: 66 }, layerId: 'medium' }),
        rule({ part: 'fill', grey: { from: 66, to: 95 }, layerId: 'shallow' }),
      ],
    };
    const layer = (colour: string) => layerByKey(depths, { part: 'fill', colour, widthMm: null });
    expect(['#101010', '#777777', '#C8C8C8', '#FFFFFF', '#D0481E', '#7A7F80'].map(layer)).toEqual([
      'deep',
      'medium',
      'shallow',
      null,
      null,
      'medium',
    ]);
  });
});

describe('another key', () => {
  const class_: ColourKey = { ...house, id: 'class', rules: [rule({ colour: '#D0481E', layerId: 'score' })] };
  const items = [item(box(0, 0, 9), 'cut'), item(box(20, 0, 9), 'cut'), item(line(0, 0, 9, 9), 'score')];
  const job = pinItems(jobWith(items), new Set([items[1].id]), 'note');

  test('what it would change is said before it does, and changing back is nothing', () => {
    expect(changeOfKey(job, house, class_)).toEqual({
      moves: [
        { from: 'Cut', to: 'Score', itemIds: [items[0].id] },
        { from: 'Score', to: null, itemIds: [items[2].id] },
      ],
      same: 1,
      undecided: 1,
    });
    expect(changeOfKey(job, house, house).moves).toEqual([]);
    const there = setKey(job, 'class');
    expect(deriveMeaning(setKey(there, job.keyId), house)).toEqual(deriveMeaning(job, house));
  });

  test('a job assigned by hand is kept as a key that says the same by itself', () => {
    const colours = fc.uniqueArray(fc.constantFrom('#123456', '#1D6FD1', '#AA0044', '#D0481E', '#00806A'), {
      minLength: 1,
    });
    fc.assert(
      fc.property(
        colours,
        fc.array(fc.constantFrom('cut', 'score', 'note'), { minLength: 5, maxLength: 5 }),
        (list, layers) => {
          const drawn = list.flatMap((colour) => stroked(colour, 2));
          const told = list.reduce(
            (sofar, colour, i) => assignPaint(sofar, { part: 'stroke', colour, widthMm: 0.1 }, layers[i]),
            jobWith(drawn),
          );
          const key = keyFromJob(told, house, 'kept', 'Kept');
          const by = (of: typeof told, under: ColourKey) =>
            [...deriveMeaning(of, under).placed].map(([id, placed]) => [id, placed.map(({ item: one }) => one.id)]);
          expect(by({ ...told, assignments: [] }, key)).toEqual(by(told, house));
          expect(keyTroubles({ ...key, rules: key.rules.slice(0, list.length) })).toEqual([]);
        },
      ),
    );
  });
});

describe('layers of the job', () => {
  const items = [item(box(0, 0, 9), 'cut'), item(box(20, 0, 9), 'score')];

  test('a layer of its own, a name of its own for one of the key’s, and one put into another', () => {
    let job = setLayer(jobWith(items), { id: 'deep', name: 'Deep', operation: 'engrave' });
    job = setLayer(job, { id: 'cut', name: 'Through', operation: 'cut' });
    job = pinItems(job, new Set([items[1].id]), 'deep');
    const before = deriveMeaning(job, house);
    expect(before.layers.map(({ name }) => name)).toEqual([
      'Through',
      'Score',
      'Engrave',
      'Photo',
      'Guide',
      'Note',
      'Deep',
    ]);
    expect(before.placed.get('deep')?.length).toBe(1);
    const merged = mergeLayer(job, 'deep', 'cut', []);
    expect(deriveMeaning(merged, house).placed.get('cut')?.length).toBe(2);
    const cuts = before.paints.filter(({ layerId }) => layerId === 'cut');
    const into = deriveMeaning(mergeLayer(job, 'cut', 'score', cuts), house);
    expect([into.placed.get('cut')?.length, into.placed.get('score')?.length]).toEqual([0, 1]);
    expect(into.layers.map(({ name }) => name)).toContain('Cut');
  });
});

describe('a key as a file', () => {
  test('is the key it was', () => {
    const full: ColourKey = {
      id: 'k',
      name: 'By depth',
      hairlineMm: 0.3,
      layers: [
        ...standardLayers(),
        {
          id: 'deep',
          name: 'Deep',
          operation: 'engrave',
          rank: 1,
          powerShare: 0.6,
          settings: { passes: 2 },
          burning: { overlaps: 'unite', depth: { steps: 3, lightest: 0.2 } },
        },
      ],
      rules: [
        rule({ part: 'fill', grey: { from: 0, to: 30 }, layerId: 'deep' }),
        rule({ colour: '#D0481E', tolerance: 2.5, maxWidthMm: 0.3 }),
      ],
    };
    expect(keyFromText(keyToJson(full))).toEqual(full);
    expect(keyFromText(keyToJson(house))).toEqual(house);
  });

  test.each<[string, string]>([
    ['not json', 'holds no JSON'],
    ['null', 'The colour key is missing'],
    ['{"name":""}', 'name must have 1 to 120'],
    ['{"id":"k","name":"K","layers":[],"rules":[{"part":"stroke","tolerance":1,"layerId":"cut"}]}', 'no layer “cut”'],
    ['{"id":"k","name":"K","layers":[{"id":"a","name":"A","operation":"melt"}],"rules":[]}', 'operation must be'],
    [
      '{"id":"k","name":"K","layers":[{"id":"a","name":"A","operation":"cut"}],"rules":[{"part":"stroke","colour":"red","tolerance":1,"layerId":"a"}]}',
      'must be like #D0481E',
    ],
    [
      '{"id":"k","name":"K","layers":[{"id":"a","name":"A","operation":"cut"}],"rules":[{"part":"fill","tolerance":900,"layerId":"a"}]}',
      'between 0 and 100',
    ],
  ])('%s is refused by place', (text, sentence) => {
    expect(() => keyFromText(text)).toThrow(NotAKey);
    expect(() => keyFromText(text)).toThrow(sentence);
    expect(() => keyFromJson(undefined)).toThrow(NotAKey);
  });

  test('what is likely wrong with it is said: no rules, rules that never get their turn, lost layers', () => {
    expect(keyTroubles({ ...house, rules: [] })).toMatchObject([{ rule: null }]);
    expect(keyTroubles(house)).toEqual([]);
    const red = rule({ colour: '#D0481E', tolerance: 3 });
    const again = rule({ colour: '#CE4A20', tolerance: 1 });
    expect(keyTroubles({ ...house, rules: [red, { ...again, layerId: 'score' }] })).toMatchObject([
      { rule: 1, message: expect.stringContaining('on another layer') },
    ]);
    expect(keyTroubles({ ...house, rules: [red, again] })).toMatchObject([
      { rule: 1, message: expect.stringContaining('the same') },
    ]);
    expect(keyTroubles({ ...house, rules: [rule({ layerId: 'gone' })] })).toMatchObject([{ rule: 0 }]);
    expect(keyTroubles({ ...house, rules: [rule({ maxWidthMm: 0.3 }), rule({ layerId: 'engrave' })] })).toEqual([]);
  });
});
