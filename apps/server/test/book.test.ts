import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { BookChange, BookTaken, ErrorAnswer } from '@lambent/contracts';
import { fitOf, kerfOf, type Material } from '@lambent/core/recipes';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const material = async (id: string) => {
  const found = (await stack.ask<Material[]>('GET', '/api/materials')).body.find((one) => one.id === id);
  if (!found) throw new Error(`There is no ${id}`);
  return found;
};
const cutOf = ({ recipes }: Material, machineId: string) =>
  recipes.find((recipe) => recipe.machineId === machineId && recipe.operation === 'cut') ?? null;
const today = new Date().toISOString().slice(0, 10);

test('a kerf is kept with the cutting recipe of one machine, with who measured it and when', async () => {
  const before = await material('birch-ply-3');
  expect(kerfOf(cutOf(before, 'wren'))).toBeNull();
  const kerf = { machineId: 'wren', mm: 0.14, from: 'measured', by: 'Noor Castellan' };
  const { status, body } = await stack.ask<Material>('PUT', '/api/materials/birch-ply-3/kerf', kerf);
  expect(status).toBe(200);
  const source = { from: 'measured', by: 'Noor Castellan', on: today };
  expect(kerfOf(cutOf(body, 'wren'))).toEqual({ mm: 0.14, source });
  const after = await material('birch-ply-3');
  expect(after).toEqual(body);
  expect(kerfOf(cutOf(after, 'curlew'))).toBeNull();
  expect(after.recipes.filter(({ operation }) => operation !== 'cut')).toEqual(
    before.recipes.filter(({ operation }) => operation !== 'cut'),
  );
});

test('fits are kept one by one; those that were never measured are guesses', async () => {
  expect(fitOf(await material('cork-3'), 'snug')).toEqual({ mm: 0.05, source: null });
  const put = (fit: string, mm: number) =>
    stack.ask<Material>('PUT', '/api/materials/cork-3/fit', { fit, mm, from: 'copied', by: 'Tomas Ferrow' });
  await put('snug', -0.1);
  const { body } = await put('loose', 0.4);
  const source = { from: 'copied', by: 'Tomas Ferrow', on: today };
  expect(body.fits).toEqual({ snug: { mm: -0.1, source }, loose: { mm: 0.4, source } });
  expect(fitOf(body, 'press')).toEqual({ mm: -0.05, source: null });
});

test.each<[string, string, object, number, string]>([
  [
    'a kerf that is none',
    'birch-ply-3/kerf',
    { machineId: 'wren', mm: 3, from: 'measured', by: 'x' },
    400,
    'at most 2 mm',
  ],
  ['nobody’s kerf', 'birch-ply-3/kerf', { machineId: 'wren', mm: 0.1, from: 'measured', by: '' }, 400, 'Say whose'],
  [
    'a kerf where nothing is cut',
    'slate-6/kerf',
    { machineId: 'wren', mm: 0.1, from: 'measured', by: 'x' },
    409,
    'no cutting recipe',
  ],
  [
    'a fit of no name',
    'cork-3/fit',
    { fit: 'tight', mm: 0.1, from: 'measured', by: 'x' },
    400,
    'loose, sliding, snug or press',
  ],
  ['a fit of nothing', 'moon-rock/fit', { fit: 'snug', mm: 0.1, from: 'measured', by: 'x' }, 404, 'no such material'],
])('%s is refused in a sentence', async (_, path, body, status, sentence) => {
  const answer = await stack.ask<ErrorAnswer>('PUT', `/api/materials/${path}`, body);
  expect(answer.status).toBe(status);
  expect(answer.body.error.message).toContain(sentence);
});

const cutRecipe = {
  machineId: 'wren',
  operation: 'cut',
  powerPercent: 50,
  speedMmPerS: 9,
  evidence: 'proven',
  note: '',
};
const ines = { by: 'Ines Varga' };

test('a material is made, changed and put away; its recipes too; each change is kept and can be taken back', async () => {
  const plain = {
    name: 'Beech plywood',
    thicknessMm: 5,
    tone: '#E0C9A0',
    sheetWidth: 400,
    sheetHeight: 300,
    family: 'Plywood',
  };
  const made = await stack.ask<Material>('POST', '/api/materials', { ...ines, material: plain });
  expect(made).toMatchObject({ status: 201, body: { id: 'beech-plywood-5', version: 1, recipes: [] } });
  const again = await stack.ask<ErrorAnswer>('POST', '/api/materials', { ...ines, material: plain });
  expect([again.status, again.body.error.code]).toEqual([409, 'material-exists']);

  const path = '/api/materials/beech-plywood-5';
  const proof = { by: 'Ines Varga', on: '2026-11-20', what: 'Test card of 20 November' };
  const recipe = { ...cutRecipe, variant: 'masked', focusMm: -1, air: 'low', proof };
  const { body } = await stack.ask<Material>('POST', `${path}/recipes`, { ...ines, recipe });
  const [kept] = body.recipes;
  expect(kept).toMatchObject({ ...recipe, version: 1, passes: 1 });
  expect((await stack.ask('POST', `${path}/recipes`, { ...ines, recipe })).status).toBe(409);

  const slower = { ...recipe, speedMmPerS: 8 };
  const changed = await stack.ask<Material>('PUT', `/api/recipes/${kept.id}`, { ...ines, version: 1, recipe: slower });
  expect(changed.body.recipes[0]).toMatchObject({ speedMmPerS: 8, version: 2 });
  const history = async () => (await stack.ask<BookChange[]>('GET', `${path}/history`)).body;
  expect((await history()).map(({ what, by }) => [what, by])).toEqual([
    ['Cut, Wren, masked: speed 9 mm/s → 8 mm/s', 'Ines Varga'],
    ['Cut, Wren, masked: made', 'Ines Varga'],
    ['made', 'Ines Varga'],
  ]);
  const [last, first] = await history();
  // What was changed since is not lost by taking an earlier change back.
  expect((await stack.ask('POST', `/api/book/changes/${first.id}/undo`, ines)).status).toBe(409);
  const back = await stack.ask<Material>('POST', `/api/book/changes/${last.id}/undo`, { by: 'Tobiah Okonjo' });
  expect(back.body.recipes[0]).toMatchObject({ speedMmPerS: 9, version: 3 });
  expect((await history())[0]).toMatchObject({ by: 'Tobiah Okonjo', what: 'Cut, Wren, masked: speed 8 mm/s → 9 mm/s' });

  const away = await stack.ask<Material>('PUT', path, {
    ...ines,
    version: 1,
    material: { ...plain, archived: true, measuredMm: 4.9 },
  });
  expect(away.body).toMatchObject({ archived: true, measuredMm: 4.9, version: 2 });
  expect((await history())[0].what).toBe('measured thickness none → 4.9 mm, put away');
});

test('of two operators who change the same recipe, the second is told what the first did, and loses nothing', async () => {
  const found = cutOf(await material('grey-board-2'), 'wren');
  if (!found) throw new Error('grey board is cut on Wren');
  const { id, version, ...recipe } = found;
  const put = (by: string, speedMmPerS: number) =>
    stack.ask<ErrorAnswer>('PUT', `/api/recipes/${id}`, { by, version, recipe: { ...recipe, speedMmPerS } });
  const both = await Promise.all([put('Ines Varga', 20), put('Tobiah Okonjo', 28)]);
  expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
  const refused = both.find(({ status }) => status === 409)?.body.error;
  const now = cutOf(await material('grey-board-2'), 'wren');
  expect(refused?.code).toBe('changed-meanwhile');
  expect(refused?.message).toContain(`speed 24 mm/s → ${now?.speedMmPerS} mm/s`);
  expect(refused?.details).toMatchObject({ speedMmPerS: now?.speedMmPerS });
});

test('the book goes out and comes back, whole as JSON and as a table', async () => {
  const before = (await stack.ask<Material[]>('GET', '/api/materials')).body;
  const json = (await fetch(`${stack.url}/api/book/recipe-book.json`)).text();
  const csv = await (await fetch(`${stack.url}/api/book/recipe-book.csv`)).text();
  const takeIn = async (format: string, text: string, take = 'all-or-nothing') =>
    (
      await stack.ask<BookTaken>(
        'POST',
        `/api/book/take-in?by=Ines&format=${format}&take=${take}`,
        new TextEncoder().encode(text),
      )
    ).body;
  const same = await takeIn('json', await json);
  expect(same).toMatchObject({ added: 0, changed: 0, faults: [], taken: true });
  expect(await takeIn('csv', csv)).toMatchObject({ added: 0, changed: 0, faults: [], taken: true });
  expect((await stack.ask<Material[]>('GET', '/api/materials')).body).toEqual(before);

  // What a table cannot hold stays: pictures, stock, and the job that was burnt.
  const cork = await material('cork-3');
  const [recipe] = cork.recipes;
  const proof = { by: 'Ines Varga', on: '2026-11-20', what: 'a card', jobId: 'some-job' };
  const pictured = { ...recipe, pictureId: 'a'.repeat(64), proof };
  await stack.ask('PUT', `/api/recipes/${recipe.id}`, { ...ines, version: recipe.version, recipe: pictured });
  const stock = [{ id: 's', width: 300, height: 200, count: 2, price: 3 }];
  const { version } = await material('cork-3');
  await stack.ask('PUT', '/api/materials/cork-3', { ...ines, version, material: { ...cork, stock } });
  const table = await (await fetch(`${stack.url}/api/book/recipe-book.csv`)).text();
  expect(await takeIn('csv', table)).toMatchObject({ added: 0, changed: 0 });
  const { stock: _, ...withoutStock } = await material('cork-3');
  const told = JSON.stringify({ format: 'lambent-book', version: 1, materials: [withoutStock] });
  expect(await takeIn('json', told)).toMatchObject({ added: 0, changed: 0 });
  expect((await material('cork-3')).stock).toEqual(stock);
  expect((await material('cork-3')).recipes.find(({ id }) => id === recipe.id)).toMatchObject({
    pictureId: 'a'.repeat(64),
    proof,
  });

  // So does where a kerf is from, as long as the table has the same kerf.
  const kerf = { machineId: 'wren', mm: 0.18, from: 'measured', by: 'Ines Varga' };
  await stack.ask('PUT', '/api/materials/cork-3/kerf', kerf);
  const source = { from: 'measured', by: 'Ines Varga', on: today };
  const withKerf = (mm: number) =>
    `material id,material,thickness mm,machine,operation,power %,speed mm/s,kerf mm\ncork-3,,,wren,cut,42,21,${mm}`;
  expect(await takeIn('csv', withKerf(0.18))).toMatchObject({ added: 0, changed: 1 });
  expect(kerfOf(cutOf(await material('cork-3'), 'wren'))).toEqual({ mm: 0.18, source });
  expect(await takeIn('csv', withKerf(0.2))).toMatchObject({ added: 0, changed: 1 });
  expect(kerfOf(cutOf(await material('cork-3'), 'wren'))).toEqual({ mm: 0.2, source: null });

  const rows = [
    'material id,material,thickness mm,machine,operation,power %,speed mm/s',
    'cork-3,,,wren,cut,44,20',
    'larch-7,Larch,7,wren,cut,80,6',
    'cork-3,,,wren,cut,44,20',
    'cork-3,,,wren,engrave,fast,300',
  ].join('\n');
  const nothing = await takeIn('csv', rows);
  expect(nothing).toMatchObject({ added: 0, changed: 0, taken: false });
  expect(nothing.faults.map(({ line }) => line)).toEqual([4, 5]);
  expect(cutOf(await material('cork-3'), 'wren')).toMatchObject({ powerPercent: 42 });
  expect(await takeIn('csv', rows, 'good')).toMatchObject({ added: 2, changed: 1, taken: true });
  expect((await material('larch-7')).recipes).toMatchObject([{ powerPercent: 80, speedMmPerS: 6, evidence: 'copied' }]);
  expect(cutOf(await material('cork-3'), 'wren')).toMatchObject({ powerPercent: 44, speedMmPerS: 20 });
});

test.each<[string, string, string, object, number, string]>([
  [
    'a recipe that is none',
    'POST',
    'materials/cork-3/recipes',
    { ...ines, recipe: { ...cutRecipe, speedMmPerS: 0 } },
    400,
    'speedMmPerS must be more than 0',
  ],
  ['nobody’s recipe', 'POST', 'materials/cork-3/recipes', { by: '', recipe: cutRecipe }, 400, 'Say who'],
  [
    'a recipe of nothing',
    'POST',
    'materials/moon-rock/recipes',
    { ...ines, recipe: cutRecipe },
    404,
    'no such material',
  ],
  ['a change of nothing', 'PUT', 'recipes/99999', { ...ines, version: 1, recipe: cutRecipe }, 404, 'no such recipe'],
  ['a material without name', 'POST', 'materials', { ...ines, material: { thicknessMm: 1 } }, 400, 'tone must be'],
  ['an undo of nothing', 'POST', 'book/changes/99999/undo', ines, 404, 'no such change'],
  ['a book of no kind', 'POST', 'book/take-in?by=x&format=xls&take=good', {}, 400, 'json or csv'],
])('%s is refused in a sentence', async (_, method, path, body, status, sentence) => {
  const answer = await stack.ask<ErrorAnswer>(method, `/api/${path}`, body);
  expect([answer.status, answer.body.error.message]).toEqual([status, expect.stringContaining(sentence)]);
});
