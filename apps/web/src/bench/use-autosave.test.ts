import './fixtures/page-address.ts';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { moveItems } from '@lambent/core/edits';
import { benchWith, square } from './fixtures/bench.ts';
import { jobOf } from './state/document.ts';
import { saveNow } from './use-autosave.ts';

interface Sent {
  base: number;
  edit: string;
  answer: (status: number, body: unknown) => void;
}

/** A server whose answers the test gives, one by one. */
let sent: Sent[] = [];
const realFetch = globalThis.fetch;
beforeEach(() => {
  sent = [];
  globalThis.fetch = ((request: Request) =>
    new Promise((resolve) => {
      const words = new URL(request.url).searchParams;
      const [base, edit] = [Number(words.get('base')), words.get('edit') ?? ''];
      const answer = (status: number, body: unknown) =>
        resolve(new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } }));
      sent.push({ base, edit, answer });
    })) as unknown as typeof fetch;
});
afterEach(() => {
  globalThis.fetch = realFetch;
});

const soon = () => new Promise((resolve) => setTimeout(resolve, 5));

function edited() {
  const { actions } = benchWith(square(20, 20, 30));
  const move = (name: string) => actions.edit(name, (job) => moveItems(job, new Set(['i1']), 1, 0));
  move('first move');
  return { actions, move };
}

describe('saving', () => {
  test('sends the edit on top of the version it was made from', async () => {
    const { actions } = edited();
    const done = saveNow(actions);
    expect(actions.get().save.kind).toBe('saving');
    await soon();
    expect(sent).toMatchObject([{ base: 1, edit: 'first move' }]);
    sent[0].answer(200, { number: 2 });
    await done;
    expect(actions.get()).toMatchObject({
      stored: { version: 2, document: jobOf(actions.get()) },
      save: { kind: 'saved' },
    });
    await saveNow(actions);
    expect(sent).toHaveLength(1);
  });

  test('what is edited while it saves is saved next, on top of the new version; never two at once', async () => {
    const { actions, move } = edited();
    const done = Promise.all([saveNow(actions), saveNow(actions)]);
    move('second move');
    await soon();
    expect(sent).toHaveLength(1);
    sent[0].answer(200, { number: 2 });
    await soon();
    expect(sent).toMatchObject([{ base: 1 }, { base: 2, edit: 'second move' }]);
    sent[1].answer(200, { number: 3 });
    await done;
    expect(sent).toHaveLength(2);
    expect(actions.get()).toMatchObject({ stored: { version: 3 }, save: { kind: 'saved' } });
  });

  test('a conflict is kept, and nothing is sent over it', async () => {
    const { actions, move } = edited();
    const done = saveNow(actions);
    await soon();
    sent[0].answer(409, { error: { code: 'saved-elsewhere', message: 'changed', details: { latest: 5 } } });
    await done;
    expect(actions.get().save).toEqual({ kind: 'conflict', latest: 5 });
    move('third move');
    await saveNow(actions);
    expect(sent).toHaveLength(1);
    expect(actions.get().stored.version).toBe(1);
  });

  test('a failure is said in the server’s words, keeps the edit, and the next try sends it', async () => {
    const { actions } = edited();
    const done = saveNow(actions);
    await soon();
    sent[0].answer(500, { error: { code: 'failed', message: 'The disk is full.' } });
    await done;
    expect(actions.get().save).toEqual({ kind: 'failed', message: 'The disk is full.' });
    const again = saveNow(actions);
    await soon();
    sent[1].answer(200, { number: 2 });
    await again;
    expect(actions.get().save.kind).toBe('saved');
  });

  test('what will never be taken is said once, and sent again only when it was changed', async () => {
    const { actions, move } = edited();
    const done = saveNow(actions);
    await soon();
    sent[0].answer(400, { error: { code: 'not-a-job', message: 'What was sent is not a job.' } });
    await done;
    expect(actions.get().save).toEqual({ kind: 'refused', message: 'What was sent is not a job.' });
    await saveNow(actions);
    expect(sent).toHaveLength(1);
    move('mended');
    const again = saveNow(actions);
    await soon();
    expect(sent[1].edit).toBe('mended');
    sent[1].answer(200, { number: 2 });
    await again;
    expect(actions.get().save.kind).toBe('saved');
  });

  test('a job that was deleted meanwhile is said to be, and what is drawn since stays unsent', async () => {
    const { actions, move } = edited();
    const done = saveNow(actions);
    await soon();
    sent[0].answer(409, { error: { code: 'job-deleted', message: 'deleted', details: { latest: 1 } } });
    await done;
    move('more');
    expect(actions.get().save).toEqual({ kind: 'deleted' });
    await saveNow(actions);
    expect(sent).toHaveLength(1);
  });

  test('a version bears the name of what was done last, undone or redone, and no longer one than is taken', async () => {
    const { actions, move } = edited();
    move('second move');
    const save = async () => {
      const done = saveNow(actions);
      await soon();
      sent.at(-1)?.answer(200, { number: sent.length + 1 });
      await done;
      return sent.at(-1)?.edit;
    };
    expect(await save()).toBe('second move');
    actions.undo();
    expect(await save()).toBe('undo: second move');
    actions.redo();
    expect(await save()).toBe('redo: second move');
    move('x'.repeat(300));
    expect(await save()).toBe(`${'x'.repeat(119)}…`);
  });
});
