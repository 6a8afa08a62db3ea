import { expect, type Page, test } from '@playwright/test';
import { rectangle, svg } from './bench.ts';
import { type OwnServer, startOwnServer } from './own-server.ts';

let own: OwnServer;
test.beforeEach(async ({ page }) => {
  own = await startOwnServer();
  expect((await page.request.post(`${own.address}/api/demo`)).ok()).toBe(true);
});
test.afterEach(() => own.close());

/** Sends a plate in under a name. @param mail where mails about it go */
async function sendIn(sender: Page, title: string, mail: string): Promise<void> {
  await sender.goto(`${own.address}/drop-off`);
  const file = { name: 'tag.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg(rectangle(20, 20, 60, 40))) };
  await sender.getByTestId('sending-file').setInputFiles(file);
  await sender.getByLabel('Your name').fill('Noor Castellan');
  await sender.getByLabel('What to call it').fill(title);
  await sender.getByLabel(/^Your mail address/).fill('nowhere');
  await sender.getByRole('button', { name: 'Send it in' }).click();
  await expect(sender.getByRole('alert')).toContainText('That is no mail address.');
  await sender.getByLabel(/^Your mail address/).fill(mail);
  await sender.getByRole('button', { name: 'Send it in' }).click();
  await expect(sender.getByRole('heading', { name: title })).toBeVisible();
}

test('a question is asked, answered and settled, in the pages and by mail', async ({ page, context }) => {
  const sender = await context.newPage();
  await sender.clock.install();
  await sendIn(sender, 'Gate tag', 'noor@castellan.example');
  await expect(sender.getByRole('main')).toContainText('noor@castellan.example');

  await page.goto(`${own.address}/?show=all&seek=gate`);
  const row = page.getByRole('row').filter({ hasText: 'Gate tag' });
  const more = page.getByRole('button', { name: 'More of Gate tag' });
  await more.click();
  const messages = page.getByRole('region', { name: 'Messages' });
  const question = messages.getByLabel('Ask or tell its sender');
  await question.fill('Which side is up?');
  // What is typed is still there when the panel was closed.
  await page.keyboard.press('Escape');
  await expect(messages).toHaveCount(0);
  await more.click();
  await expect(question).toHaveValue('Which side is up?');
  await messages.getByRole('button', { name: 'Send it' }).click();
  await expect(messages.getByRole('listitem')).toContainText('Which side is up?');
  await expect(question).toHaveValue('');
  await expect(row).toContainText('Waits for an answer');

  // A refusal goes once it is sent.
  await page.route('**/api/jobs/*/messages', (route) => route.abort(), { times: 1 });
  await question.fill('Or does it not matter?');
  await messages.getByRole('button', { name: 'Send it' }).click();
  await expect(messages.getByRole('alert')).toContainText('The server does not answer.');
  await expect(question).toHaveValue('Or does it not matter?');
  await messages.getByRole('button', { name: 'Send it' }).click();
  await expect(messages.getByRole('listitem')).toHaveCount(2);
  await expect(messages.getByRole('alert')).toHaveCount(0);

  // The sender's page finds the questions by itself.
  await sender.clock.runFor(25_000);
  const asked = sender.getByRole('region', { name: 'Messages' });
  await expect(asked.getByRole('listitem').first()).toContainText('Which side is up?');
  await asked.getByLabel('Ask or tell the workshop').fill('The one with the <b>hole</b>.');
  await asked.getByRole('button', { name: 'Send it' }).click();
  await expect(asked.getByRole('listitem')).toHaveCount(3);

  // The open panel, and the Desk behind it, hear the answer.
  await expect(messages.getByRole('listitem').last()).toContainText('Noor Castellan');
  await expect(messages.getByRole('listitem').last()).toContainText('The one with the <b>hole</b>.');
  await expect(row).toContainText('A message to answer');
  await messages.getByRole('button', { name: 'Nothing to answer' }).click();
  await expect(row).not.toContainText('A message to answer');
  await expect(messages.getByRole('button', { name: 'Nothing to answer' })).toHaveCount(0);

  await page.goto(`${own.address}/shop`);
  const mails = page.getByRole('region', { name: 'Mails' });
  const toSender = mails.getByRole('listitem').filter({ hasText: 'to noor@castellan.example' });
  await expect(toSender.filter({ hasText: 'kept as a file' })).toHaveCount(3);
  await expect(mails).toContainText(`${own.data}/outbox`);
  await expect(mails).not.toContainText('Which side is up?');

  // Withdrawn, nobody would read more.
  await sender.getByRole('button', { name: 'Withdraw it…' }).click();
  await sender.getByRole('button', { name: 'Withdraw it: this link ends' }).click();
  await expect(sender.getByRole('button', { name: 'Choose a file' })).toBeVisible();
  await page.goto(`${own.address}/?show=put%20away&seek=gate`);
  await more.click();
  await expect(messages).toContainText('The sender withdrew it');
  await expect(messages.getByRole('textbox')).toHaveCount(0);
});

test('a shop without a mail address asks for none, and says what is wrong with one', async ({ page }) => {
  await page.goto(`${own.address}/shop`);
  const address = page.getByRole('region', { name: 'Mails' }).getByLabel(/^Mail address of the shop/);
  await address.fill('nowhere');
  await address.press('Enter');
  await expect(page.getByText(/That is no mail address/)).toBeVisible();
  await expect(address).toHaveValue('workshop@ternlane.example');
  await address.fill('');
  const settled = page.waitForResponse((answer) => answer.url().endsWith('/api/settings'));
  await address.press('Enter');
  await settled;
  await page.goto(`${own.address}/drop-off`);
  const file = { name: 'tag.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg(rectangle(20, 20, 60, 40))) };
  await page.getByTestId('sending-file').setInputFiles(file);
  await expect(page.getByLabel('Your name')).toBeVisible();
  await expect(page.getByLabel(/^Your mail address/)).toHaveCount(0);
});

test('a new file is looked at over the one before, sent, and taken by the workshop', async ({ page, context }) => {
  const sender = await context.newPage();
  await sendIn(sender, 'Gate tag', 'noor@castellan.example');
  const next = svg(
    `${rectangle(20, 20, 60, 40)}<path d="M30 30h12v12h-12z" fill="none" stroke="#D0481E" stroke-width="0.2"/>`,
  );
  const file = { name: 'tag with a hole.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(next) };
  await sender.getByTestId('new-file').setInputFiles({ ...file, buffer: Buffer.from('no drawing at all') });
  await expect(sender.getByRole('alert')).toContainText('tag with a hole.svg');
  await sender.getByTestId('new-file').setInputFiles(file);
  await expect(sender.getByRole('heading', { name: 'A new file for “Gate tag”' })).toBeVisible();
  const changes = sender.getByRole('region', { name: 'What changes' });
  await expect(changes.getByRole('listitem')).toHaveText(['New 1', 'Gone 0', 'Done otherwise 0', 'As before 1']);
  await expect(changes.getByRole('img')).toBeVisible();
  // It is still there after a reload, and can be left.
  await sender.reload();
  await expect(changes).toBeVisible();
  await sender.getByRole('link', { name: 'Another file' }).click();
  await expect(sender.getByRole('heading', { name: 'Gate tag', exact: true })).toBeVisible();
  await sender.goBack();
  await sender.getByRole('button', { name: 'Send it instead' }).click();
  await expect(sender.getByText(/^You sent a new file, tag with a hole.svg/)).toBeVisible();

  await page.goto(`${own.address}/?show=wants%20you&seek=gate`);
  await page.getByRole('button', { name: 'More of Gate tag' }).click();
  const waiting = page.getByRole('region', { name: 'New file' });
  await expect(waiting).toContainText('tag with a hole.svg');
  await expect(waiting.getByRole('img')).toBeVisible();
  await expect(waiting.getByRole('listitem')).toHaveText(['New 1', 'Gone 0', 'Done otherwise 0', 'As before 1']);
  await waiting.getByRole('button', { name: 'Take it' }).click();
  await expect(waiting).toHaveCount(0);
  const messages = page.getByRole('region', { name: 'Messages' });
  await expect(messages.getByRole('listitem').last()).toContainText('Took the new file tag with a hole.svg.');
  await sender.reload();
  await expect(sender.getByRole('listitem').last()).toContainText('Took the new file tag with a hole.svg.');
  await expect(sender.getByText(/^You sent a new file/)).toHaveCount(0);
});
