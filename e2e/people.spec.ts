import { expect, type Page, test } from '@playwright/test';
import { type OwnServer, startOwnServer } from './own-server.ts';

/** A shop of its own for each test: in that of the others nobody signs in. */
let own: OwnServer;
test.beforeEach(async () => {
  own = await startOwnServer();
});
test.afterEach(() => own.close());

const password = 'a heron on the slip';

/** Makes the first manager, on the page of the shop. */
async function makeManager(page: Page): Promise<void> {
  await page.goto(`${own.address}/shop`);
  const card = page.getByRole('region', { name: 'Signing in' });
  await expect(card.getByText('Nobody signs in yet')).toBeVisible();
  await card.getByLabel('Name of the manager').fill('Ines Varga');
  await card.getByLabel(/^Password/).fill('short');
  await card.getByRole('button', { name: 'Make the manager' }).click();
  await expect(card.getByRole('alert')).toHaveText('A password has 10 to 200 characters.');
  await card.getByLabel(/^Password/).fill(password);
  await card.getByRole('button', { name: 'Make the manager' }).click();
  await expect(page.getByRole('button', { name: 'At this screen: Ines Varga' })).toBeVisible();
  // Names are no longer only typed.
  await expect(page.getByRole('region', { name: 'People' })).toBeHidden();
}

async function signIn(page: Page, name: string, word: string): Promise<void> {
  const form = page.getByRole('form', { name: 'Sign in' });
  await form.getByLabel('Your name').fill(name);
  await form.getByLabel('Password').fill(word);
  await form.getByRole('button', { name: 'Sign in' }).click();
}

test('the first manager is made, signs out, and signs in again', async ({ page }) => {
  await makeManager(page);
  await page.getByRole('button', { name: 'At this screen: Ines Varga' }).click();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await signIn(page, 'ines varga', 'not this one');
  await expect(page.getByRole('alert')).toHaveText('Nobody of this name has this password.');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await signIn(page, 'ines varga', password);
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'At this screen: Ines Varga' })).toBeVisible();
});

test('somebody joins by a link, does what an operator may, and is signed out when they have left', async ({
  page,
  browser,
}) => {
  await makeManager(page);
  const card = page.getByRole('region', { name: 'Signing in' });
  await card.getByRole('button', { name: 'Make an invitation' }).click();
  const link = await card.getByLabel(/^Send this link/).inputValue();

  const other = await (await browser.newContext()).newPage();
  await other.goto(link);
  const form = other.getByRole('form', { name: 'Join the shop' });
  await form.getByLabel('Your name').fill('Pavel Anders');
  await form.getByLabel(/^Password/).fill('seeds in the signal box');
  await form.getByRole('button', { name: 'Join' }).click();
  await expect(other.getByRole('button', { name: 'At this screen: Pavel Anders' })).toBeVisible();

  // What is for the manager is refused with a sentence, and stays as it was.
  await other.goto(`${own.address}/shop`);
  await expect(other.getByText('A manager says who signs in here')).toBeVisible();
  const name = other.getByRole('region', { name: 'The shop' }).getByLabel('Name', { exact: true });
  await name.fill('Another name');
  await name.press('Enter');
  await expect(other.getByText('That is for a manager to do.')).toBeVisible();

  await page.reload();
  await expect(card.getByRole('list', { name: 'Who signs in here' }).getByRole('listitem')).toHaveCount(2);
  await card.getByRole('button', { name: 'Pavel Anders has left' }).click();
  await expect(card.getByRole('button', { name: 'Pavel Anders is back' })).toBeVisible();
  await other.goto(`${own.address}/machines`);
  await expect(other.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await signIn(other, 'Pavel Anders', 'seeds in the signal box');
  await expect(other.getByRole('alert')).toHaveText('Nobody of this name has this password.');
  // A link is good for one.
  await other.goto(link);
  await form.getByLabel('Your name').fill('Pavel Anders again');
  await form.getByLabel(/^Password/).fill('seeds in the signal box');
  await form.getByRole('button', { name: 'Join' }).click();
  await expect(form.getByRole('alert')).toContainText('Ask for another one');
  await other.context().close();
});

test('a password is changed', async ({ page }) => {
  await makeManager(page);
  await page.getByRole('button', { name: 'At this screen: Ines Varga' }).click();
  await page.getByRole('button', { name: 'Change the password' }).click();
  const form = page.getByRole('form', { name: 'Change the password' });
  await form.getByLabel('Password now').fill('not this one');
  await form.getByLabel(/^New one/).fill('a heron on the weir');
  await form.getByRole('button', { name: 'Change it' }).click();
  await expect(form.getByRole('alert')).toHaveText('That is not your password now. Nothing was changed.');
  await form.getByLabel('Password now').fill(password);
  await form.getByRole('button', { name: 'Change it' }).click();
  await expect(page.getByText('Your password is changed.')).toBeVisible();
  await page.getByRole('button', { name: 'Sign out everywhere' }).click();
  await signIn(page, 'Ines Varga', 'a heron on the weir');
  await expect(page.getByRole('button', { name: 'At this screen: Ines Varga' })).toBeVisible();
});
