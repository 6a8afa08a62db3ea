import type { RunAnswer } from '@lambent/contracts';
import type { Material } from '@lambent/core/recipes';
import { expect, type Page } from '@playwright/test';

/** A material of a test's own, of which nothing is known. */
export async function unknownStock(page: Page, name: string, more: Partial<Material> = {}): Promise<Material> {
  const material = {
    name,
    family: name,
    thicknessMm: 5,
    tone: '#B9C39A',
    sheetWidth: 300,
    sheetHeight: 200,
    ...more,
  };
  const answer = await page.request.post('/api/materials', { data: { by: 'Ines Varga', material } });
  return (await answer.json()) as Material;
}

/** Sends what is on screen, and waits until so many runs of the job are done. */
export async function burn(page: Page, count: number): Promise<RunAnswer> {
  await page.getByRole('button', { name: /^Send / }).click();
  const id = /jobs\/([^/]+)/.exec(page.url())?.[1];
  let done: RunAnswer[] = [];
  await expect
    .poll(
      async () => {
        const runs = (await (await page.request.get(`/api/runs?job=${id}`)).json()) as RunAnswer[];
        done = runs.filter(({ status }) => status === 'done');
        return done.length;
      },
      { timeout: 120_000 },
    )
    .toBe(count);
  return done[0];
}
