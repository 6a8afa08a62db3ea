import { join } from 'node:path';
import type { JobCard, Settings } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import type { Material } from '@lambent/core/recipes';
import { expect, type Page, test } from '@playwright/test';
import { SerialMachine } from '../apps/server/test/serial-machine.ts';
import { bringIn, choose, holdAnswers, openJob, openStage, rectangle, saved, svg, typeInto } from './bench.ts';
import { addStandIn, askOwn, type OwnServer, startOwnServer } from './own-server.ts';

/** A Lambent of its own for each test, on an empty data folder. */
let own: OwnServer;
let data: string;
let address: string;

test.beforeEach(async () => {
  own = await startOwnServer();
  ({ data, address } = own);
});

test.afterEach(() => own.close());

const get = <T>(page: Page, path: string) => askOwn<T>(own, page, path);
const addMachine = (page: Page, name: string) => addStandIn(own, page, name);

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
    await expect(page.getByRole('button', { name: 'First job: Burnt' })).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible();
    expect(await get<Machine[]>(page, 'machines')).toMatchObject([{ name: 'Sandpiper', kind: 'diode', bedWidth: 430 }]);
    const materials = await get<Material[]>(page, 'materials');
    expect(materials.map(({ name, recipes }) => [name, recipes.length])).toEqual([
      ['Birch plywood', 0],
      ['PVC and vinyl', 0],
    ]);
  });
}

test('a colour key that is chosen before the server told the keys is taken all the same', async ({ page }) => {
  const answer = await holdAnswers(page, '**/api/colour-keys');
  await page.goto(address);
  await page.getByRole('button', { name: /A colour key/ }).click();
  const lines = page.getByRole('radio', { name: /^Lines cut, fills engrave/ });
  await lines.click();
  answer();
  await expect(lines).toBeChecked();
});

test('prices that are typed faster than the server answers all hold', async ({ page }) => {
  await page.request.put(`${address}/api/settings`, { data: { isSetUp: true } });
  await page.goto(`${address}/shop`);
  const prices = page.getByRole('region', { name: 'Prices' });
  await expect(prices.getByLabel('Each run')).toBeVisible();
  const answer = await holdAnswers(page, '**/api/settings');
  await typeInto(page, 'Setting a job up', '4.50');
  await typeInto(page, 'Each run', '2');
  await page.getByLabel('Currency').fill('$');
  await page.getByLabel('Currency').press('Enter');
  answer();
  await expect
    .poll(async () => (await get<Settings>(page, 'settings')).pricing)
    .toMatchObject({ setUp: 4.5, perRun: 2, currency: '$' });
});

for (const [device, width, height] of [
  ['a screen', 1280, 800],
  ['a tablet', 1024, 768],
] as const) {
  test(`two machines of one’s own, the second over a serial line, burn one job, on ${device}`, async ({ page }) => {
    const line = new SerialMachine();
    await line.start('--power-scale', '255', '--acceleration-y', '700', '--factor', '10', '--locked');
    try {
      await page.setViewportSize({ width, height });
      await page.request.put(`${address}/api/settings`, { data: { isSetUp: true } });
      const sandpiper = await addMachine(page, 'Sandpiper');

      await page.goto(`${address}/machines/new`);
      await choose(page, /^Kind/, 'Diode');
      await page.getByLabel('Name', { exact: true }).fill('Sanderling');
      await page.getByRole('radio', { name: 'Serial port' }).click();
      await expect(page.getByText('Say at which port it is.')).toBeVisible();
      const test = page.getByRole('button', { name: 'Test the connection' });
      const found = page.getByRole('status', { name: 'What the test found' });
      await page.getByLabel('Port', { exact: true }).fill('/dev/ttyNowhere');
      await test.click();
      await expect(found).toHaveText('There is no port /dev/ttyNowhere: plug the machine in, or choose another.');
      await page.getByLabel('Port', { exact: true }).fill(line.port);
      await expect(found).toBeEmpty();
      await test.click();
      await expect(found.getByRole('listitem')).toHaveText([
        'The line is open, and it answers in the plain language.',
        'It is in alarm: it is locked. Clear the alarm or home it before a run.',
        'It takes 127 characters and 17 moves.',
        'Its laser mode is on: the power follows the speed.',
      ]);
      await expect(page.getByRole('row', { name: 'Full power is S 255 1000' })).toBeVisible();
      await page.getByRole('button', { name: 'Take these figures over' }).click();
      await expect(page.getByLabel('Full power is S')).toHaveValue('255');
      await expect(page.getByLabel('Looks ahead')).toHaveValue('16');
      await expect(page.getByRole('row', { name: /Full power/ })).toBeHidden();
      await page.getByRole('button', { name: 'Add the machine' }).click();
      const connection = page.getByRole('region', { name: 'Connection' });
      await expect(connection.getByText('It answers.')).toBeVisible();
      const [, sanderling] = await get<Machine[]>(page, 'machines');
      expect(sanderling).toMatchObject({
        name: 'Sanderling',
        powerScale: 255,
        accelerationY: 700,
        lookAhead: 16,
        connection: { kind: 'serial', path: line.port, baud: 115_200, buffer: 127 },
      });

      // What it cannot do is not offered; its alarm is cleared.
      await page.goto(`${address}/machines`);
      const card = page.getByRole('region', { name: 'Sanderling' });
      await expect(card.getByRole('button')).toHaveText(['Clear alarm', 'Home']);
      await card.getByRole('button', { name: 'Clear alarm' }).click();
      await expect(page.getByTestId(`state-${sanderling.id}`)).toHaveText('Idle');
      await expect(card.getByText('Lid')).toBeHidden();
      await expect(page.getByRole('region', { name: 'Sandpiper' }).getByText('Lid', { exact: true })).toBeVisible();

      const made = await page.request.post(`${address}/api/jobs`, {
        data: { title: 'Coasters', machineId: sandpiper.id },
      });
      await page.goto(`${address}/jobs/${((await made.json()) as JobCard).id}/art`);
      await bringIn(page, 'tag.svg', svg(rectangle(20, 20, 60, 40)));
      const burn = async (machine: string, runs: number) => {
        await openStage(page, 'Recipe');
        const cut = page.getByRole('region', { name: 'Cut', exact: true });
        await cut.getByLabel(/^Power/).fill('80');
        await cut.getByLabel(/^Power/).press('Enter');
        await cut.getByLabel('Speed', { exact: true }).fill('50');
        await cut.getByLabel('Speed', { exact: true }).press('Enter');
        await saved(page);
        await page.getByRole('button', { name: `Send to ${machine}` }).click();
        await expect(page.getByTestId('run-row')).toHaveCount(runs);
        await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
      };
      await burn('Sandpiper', 1);
      await choose(page, 'Machine: Sandpiper', /^Sanderling/);
      await saved(page);
      await burn('Sanderling', 2);
      expect(line.told).toContain('the beam is on');
      expect(line.isLit).toBe(false);
    } finally {
      await line.close();
    }
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
  await choose(page, 'Rests after a run: At its zero', 'At a place');
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
  await expect(page.getByRole('region', { name: 'Connection' }).getByText('It answers.')).toBeVisible();
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
  // Numbers as the shop writes them: in fields, with jobs, and typed either way.
  await choose(page, /^Numbers are written/, '1.234,5');
  await expect(minute).toHaveValue('0,40');
  await typeInto(page, 'Setting a job up', '4.75');
  await expect(page.getByLabel('Setting a job up')).toHaveValue('4,75');
  await typeInto(page, 'Setting a job up', '4,5');
  await page.goBack();
  await expect(page.getByTestId('plan-price')).toHaveText(/^€ \d+,\d\d$/);
  await page.goForward();
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
    numbers: 'comma',
    pricing: { currency: '€', setUp: 4.5, machines: { [knot.id]: 0.4 } },
  });
});
