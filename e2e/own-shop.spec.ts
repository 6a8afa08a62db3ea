import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import type { JobCard } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { expect, type Page, test } from '@playwright/test';
import { bringIn, choose, openJob, openStage, rectangle, saved, svg, typeInto } from './bench.ts';

/** A Lambent of its own for each test, on an empty data folder. */
let server: ChildProcess;
let data: string;
let address: string;

test.beforeEach(async () => {
  data = mkdtempSync(join(tmpdir(), 'lambent-own-'));
  server = spawn(process.execPath, [join(import.meta.dirname, '../apps/server/dist-program/main.js')], {
    env: { ...process.env, LAMBENT_DATA: data, LAMBENT_PORT: '0', LAMBENT_DEMO: '', LAMBENT_MACHINE_PORTS: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  address = await new Promise<string>((resolve, reject) => {
    server.once('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
    createInterface({ input: server.stdout as NonNullable<typeof server.stdout> }).on('line', (line) => {
      const [url] = /http:\S+/.exec(line) ?? [];
      if (url) resolve(url);
    });
  });
});

test.afterEach(async () => {
  const ended = new Promise((resolve) => server.once('exit', resolve));
  server.kill('SIGTERM');
  await ended;
  rmSync(data, { recursive: true, force: true });
});

async function get<T>(page: Page, path: string): Promise<T> {
  return (await (await page.request.get(`${address}/api/${path}`)).json()) as T;
}

/** Adds a machine on its own page, on a stand-in, and waits until it answers. */
async function addMachine(page: Page, name: string): Promise<Machine> {
  await page.goto(`${address}/machines/new`);
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByRole('radio', { name: 'Stand-in' }).click();
  await page.getByRole('button', { name: 'Add the machine' }).click();
  await expect(page.getByRole('region', { name: 'Connection' }).getByRole('status')).toContainText('It answers.');
  const machine = (await get<Machine[]>(page, 'machines')).find((known) => known.name === name);
  if (!machine) throw new Error(`${name} was not added`);
  return machine;
}

for (const [device, width, height] of [
  ['a screen', 1280, 800],
  ['a tablet', 1024, 768],
] as const) {
  test(`from an empty database to a finished burn, on ${device}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    await page.goto(address);
    await page.getByLabel('Name of the shop').fill('Quay Workshop');
    await page.getByLabel('Your name').fill('Ines Varga');
    await page.getByLabel('Currency').fill('€');
    await page.getByRole('button', { name: 'On to the machine' }).click();
    await expect(page.getByRole('button', { name: 'At this screen: Ines Varga' })).toBeVisible();

    await choose(page, /^Kind/, 'Diode');
    await page.getByLabel('Name', { exact: true }).fill('Sandpiper');
    await typeInto(page, 'Width', '43 cm');
    await expect(page.getByRole('img', { name: 'The bed, 430 by 400 mm' })).toBeVisible();
    await page.getByRole('button', { name: 'Add the machine' }).click();

    await page.getByRole('group', { name: 'Birch plywood' }).getByLabel('3 mm').check();
    await page.getByRole('group', { name: 'PVC and vinyl' }).getByRole('checkbox').check();
    await page.getByRole('button', { name: 'Add 2 materials' }).click();

    await page.getByRole('radio', { name: /^Lines cut, fills engrave/ }).click();
    await expect(page.getByRole('radio', { name: /^Lines cut, fills engrave/ })).toBeChecked();
    await page.getByRole('button', { name: 'On to the first job' }).click();
    await page.getByRole('button', { name: 'Make the job' }).click();

    await expect(page.getByText('Drop a drawing here')).toBeVisible();
    await bringIn(page, 'tag.svg', svg(rectangle(20, 20, 60, 40, '#123456')));
    await openStage(page, 'Recipe');
    await expect(page.getByText('No recipe here')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Burn a test card first' })).toBeVisible();
    const cut = page.getByRole('region', { name: 'Cut', exact: true });
    await cut.getByLabel(/^Power/).fill('80');
    await cut.getByLabel(/^Power/).press('Enter');
    await cut.getByLabel('Speed', { exact: true }).fill('5');
    await cut.getByLabel('Speed', { exact: true }).press('Enter');
    await saved(page);
    await page.getByRole('button', { name: 'Send to Sandpiper' }).click();
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');

    // The Desk shows the job from now on, and leads nobody any more.
    await page.goto(address);
    await expect(page.getByRole('link', { name: /First job/ }).first()).toContainText('Last run done');
    await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible();
    expect(await get<Machine[]>(page, 'machines')).toMatchObject([{ name: 'Sandpiper', kind: 'diode', bedWidth: 430 }]);
    const materials = await get<Material[]>(page, 'materials');
    expect(materials.map(({ name, recipes }) => [name, recipes.length])).toEqual([
      ['Birch plywood', 0],
      ['PVC and vinyl', 0],
    ]);
  });
}

test('one looks around in the demo shop first, and leaves it', async ({ page }) => {
  await page.goto(address);
  await page.getByRole('button', { name: 'Look around in the demo shop' }).click();
  await expect(page.getByText('This is the demo shop.')).toBeVisible();
  await expect(page.getByRole('link', { name: /Row markers/ }).first()).toBeVisible();
  await page.goto(`${address}/machines`);
  await expect(page.getByTestId('state-wren')).toHaveText('Idle');
  await page.goto(address);
  await page.getByRole('button', { name: 'Begin my own shop…' }).click();
  await page.getByRole('button', { name: 'Leave it and begin my own shop' }).click();
  await expect(page.getByRole('heading', { name: 'A shop of your own' })).toBeVisible();
  expect(await get<Machine[]>(page, 'machines')).toEqual([]);
});

test('a job goes out of the demo shop as one file, and comes into a shop of one’s own', async ({ page }) => {
  await openJob(page, 'Bench plaque');
  await openStage(page, 'Burn');
  const going = page.waitForEvent('download');
  await page.getByRole('link', { name: 'the whole job as one file' }).click();
  const sent = await going;
  expect(sent.suggestedFilename()).toBe('Bench plaque.lambent-job.zip');
  const file = join(data, 'sent.zip');
  await sent.saveAs(file);

  await page.goto(address);
  await page.getByRole('button', { name: 'Skip all of this' }).click();
  await page
    .getByTestId('job-file')
    .setInputFiles({ name: 'letter.zip', mimeType: 'application/zip', buffer: Buffer.from('Dear Ines') });
  await expect(page.getByText(/letter\.zip was not taken\. This is not the file of a job/)).toBeVisible();
  await page.getByTestId('job-file').setInputFiles(file);
  const asked = page.getByRole('dialog', { name: 'Who is at this screen?' });
  await asked.getByLabel('Another name').fill('Noor Castellan');
  await asked.getByRole('button', { name: 'That is me' }).click();
  const card = page.getByRole('dialog', { name: 'Bench plaque' });
  await expect(card.getByText('Heronbrook Seed Library · from Tern Lane Workshop')).toBeVisible();
  await expect(card.getByText(/2 items, 1 original, 1 picture/)).toBeVisible();
  await expect(card.getByRole('button', { name: /Wren, added but not connected/ })).toBeVisible();
  await card.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText(/Wren was added to the machines, and is not connected\./)).toBeVisible();
  await expect(page.getByTestId('step-photo-all')).toBeVisible();
  const [job] = await get<JobCard[]>(page, 'jobs');
  expect(job).toMatchObject({ title: 'Bench plaque', project: 'Heronbrook Seed Library', machineId: 'wren' });
});

test('all steps are skipped, and what is missing says so where it is needed', async ({ page }) => {
  await page.goto(address);
  await page.getByRole('button', { name: 'Skip this step' }).click();
  await expect(page.getByRole('heading', { name: 'Your machine' })).toBeVisible();
  await page.getByRole('button', { name: 'Skip all of this' }).click();
  await expect(page.getByText('No jobs yet')).toBeVisible();
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByText('A job is made for a machine.').waitFor();
  await page.getByRole('link', { name: 'Add a machine' }).click();
  await expect(page.getByRole('heading', { name: 'A new machine' })).toBeVisible();
  // A material is made from nothing: who makes it is asked once, and what was asked for is done.
  await page.goto(`${address}/book`);
  await page.getByRole('button', { name: 'New material' }).click();
  const asked = page.getByRole('dialog', { name: 'Who is at this screen?' });
  await asked.getByRole('button', { name: 'Not now' }).click();
  expect(await get<Material[]>(page, 'materials')).toEqual([]);
  await page.getByRole('button', { name: 'New material' }).click();
  await asked.getByLabel('Another name').fill('Tobiah Okonjo');
  await asked.getByRole('button', { name: 'That is me' }).click();
  await expect(page.getByRole('heading', { name: /New material/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'At this screen: Tobiah Okonjo' })).toBeVisible();
  await page.getByRole('button', { name: 'New material' }).click();
  await expect(page.getByRole('heading', { name: /New material 2/ })).toBeVisible();
});

test('a machine is typed, doubted, refused, changed and put away; what is typed is not lost by leaving', async ({
  page,
}) => {
  await page.goto(`${address}/machines/new`);
  const add = page.getByRole('button', { name: 'Add the machine' });
  await expect(add).toBeDisabled();
  await expect(page.getByText('Give it a name first.')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Curlew');
  await typeInto(page, 'Depth', '5');
  await expect(page.getByRole('alert')).toHaveText('From 10 to 20,000 mm.');
  await typeInto(page, 'Depth', '16 in');
  await expect(page.getByRole('img', { name: 'The bed, 600 by 406.4 mm' })).toBeVisible();
  // The bed is drawn as one types; Escape shows what stood there.
  await page.getByLabel('Width').fill('900');
  await expect(page.getByRole('img', { name: 'The bed, 900 by 406.4 mm' })).toBeVisible();
  await page.getByLabel('Width').press('Escape');
  await expect(page.getByRole('img', { name: 'The bed, 600 by 406.4 mm' })).toBeVisible();
  await typeInto(page, 'Top speed', '2000');
  await expect(
    page.getByText('The bed is too short for that: the head reaches 1341 mm/s, then it must brake.'),
  ).toBeVisible();
  await typeInto(page, 'Top speed', '24000 mm/min');
  await expect(page.getByLabel('Top speed')).toHaveValue('400');
  await typeInto(page, 'Rests at X, Y', '700 0');
  await expect(page.getByText(/That is off the bed: its X goes from 0 mm to 600 mm/).first()).toBeVisible();
  await expect(add).toBeDisabled();
  await typeInto(page, 'Rests at X, Y', '600, 0');
  await choose(page, /^Focus/, 'Driven');
  await choose(page, /^Air at the beam/, 'Low and high');
  await page.getByRole('button', { name: 'A lens' }).click();
  await page.getByRole('textbox', { name: 'Lens 1' }).fill('50 mm');
  await page.getByRole('radio', { name: 'Network' }).click();
  await expect(page.getByText('Say which host it listens on.')).toBeVisible();
  await page.getByRole('radio', { name: 'Not yet' }).click();
  await add.click();
  await expect(page.getByText('Used by 0 jobs, 0 recipes')).toBeVisible();
  const [curlew] = await get<Machine[]>(page, 'machines');
  expect(curlew).toMatchObject({
    name: 'Curlew',
    bedHeight: 406.4,
    topSpeed: 400,
    rest: { x: 600, y: 0 },
    focus: { lowest: -10, highest: 20, speed: 5 },
    air: { levels: ['low', 'high'], mostBar: null },
    lenses: [{ name: '50 mm' }],
    connection: null,
  });

  // A name that is taken is refused by the server, in its sentence.
  const knot = await addMachine(page, 'Knot');
  await page.getByLabel('Name', { exact: true }).fill('curlew');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('There is a machine “Curlew” already. Give this one another name.')).toBeVisible();
  // What is not saved is asked about before it is left.
  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await expect(page.getByText('What was typed is not saved.')).toBeVisible();
  await page.getByRole('button', { name: 'Stay here' }).click();
  await page.getByRole('button', { name: 'Take the changes back' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Knot');

  const made = await page.request.post(`${address}/api/jobs`, { data: { title: 'Coasters', machineId: knot.id } });
  expect(made.status()).toBe(201);
  await page.reload();
  await expect(page.getByText('Used by 1 job, 0 recipes')).toBeVisible();
  await page.getByRole('button', { name: 'Put away…' }).click();
  await expect(page.getByRole('link', { name: 'Coasters' })).toBeVisible();
  await page.getByRole('button', { name: 'Put Knot away' }).click();
  await expect(page.getByRole('button', { name: 'Take it back' })).toBeVisible();
  // Its job opens as it was, and is not offered the machine to others.
  const [job] = await get<JobCard[]>(page, 'jobs');
  await page.goto(`${address}/jobs/${job.id}/bed`);
  await page.getByRole('button', { name: 'Machine: Knot' }).first().click();
  await expect(page.getByRole('option')).toHaveText([/Curlew/, /Knot/]);
  await page.getByRole('option', { name: /Curlew/ }).click();
  await page.getByRole('button', { name: 'Machine: Curlew' }).first().click();
  await expect(page.getByRole('option')).toHaveText([/Curlew/]);
  await page.keyboard.press('Escape');
  await saved(page);
  await page.goto(`${address}/machines/${knot.id}`);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('region', { name: 'Connection' }).getByRole('status')).toContainText('It answers.');
});

test('the shop is named, its people listed, its prices set; what has none is said with the job', async ({ page }) => {
  const knot = await addMachine(page, 'Knot');
  await page.goto(`${address}/shop`);
  await typeInto(page, 'Currency', '€');
  const people = page.getByRole('region', { name: 'People' });
  await people.getByLabel('Name of somebody who works here').fill('Ines Varga');
  await people.getByRole('button', { name: 'Add' }).click();
  await expect(people.getByText('at this screen')).toBeVisible();
  await people.getByLabel('Name of somebody who works here').fill('ines varga');
  await expect(people.getByText('That name is on the list.')).toBeVisible();
  await choose(page, /^Days are written/, '2026-11-27');
  const minute = page.getByRole('group', { name: 'A minute of' }).getByLabel('Knot');
  await expect(minute).toHaveValue('');
  await typeInto(page, 'Setting a job up', '4,50');
  await expect(page.getByLabel('Setting a job up')).toHaveValue('4.50');

  const made = await page.request.post(`${address}/api/jobs`, { data: { title: 'Coasters', machineId: knot.id } });
  await page.goto(`${address}/jobs/${((await made.json()) as JobCard).id}/art`);
  await bringIn(page, 'tag.svg', svg(rectangle(20, 20, 60, 40)));
  await openStage(page, 'Recipe');
  const cut = page.getByRole('region', { name: 'Cut', exact: true });
  await cut.getByLabel(/^Power/).fill('80');
  await cut.getByLabel(/^Power/).press('Enter');
  await cut.getByLabel('Speed', { exact: true }).fill('5');
  await cut.getByLabel('Speed', { exact: true }).press('Enter');
  await expect(page.getByTestId('plan-price')).toHaveText('from € 4.50');
  await openStage(page, 'Burn');
  await expect(page.getByText('Without Knot: no price is set.')).toBeVisible();
  await page.getByRole('link', { name: 'Set it' }).click();
  await minute.fill('0.40');
  await minute.press('Enter');
  await expect(minute).toHaveValue('0.40');
  const backups = page.getByRole('region', { name: 'Backups' });
  await expect(backups.getByText('There is none yet.')).toBeVisible();
  await backups.getByRole('button', { name: 'Make one now' }).click();
  const taking = page.waitForEvent('download');
  await backups.getByRole('link', { name: /^Take out shop-/ }).click();
  expect((await taking).suggestedFilename()).toMatch(/^shop-.*\.tar\.gz$/);
  await people.getByRole('button', { name: 'Take Ines Varga off the list' }).click();
  await expect(people.getByText('at this screen')).toBeHidden();
  expect(await get(page, 'settings')).toMatchObject({
    people: [],
    dates: 'year first',
    pricing: { currency: '€', setUp: 4.5, machines: { [knot.id]: 0.4 } },
  });
});
