import type { JobDocument } from '@lambent/core';
import { useEffect } from 'react';
import { api, documentBlob, Refusal, sentenceOf } from '../api.ts';
import { writeInWorker } from '../workers/bench.ts';
import type { BenchActions } from './store.ts';
import { jobOf } from './store.ts';

const quietMs = 500;
const retryMs = 4000;
const saving = new WeakMap<BenchActions, Promise<void>>();

/** Saves every edit as a version of its own kind: half a second after the last one. */
export function useAutosave(actions: BenchActions, subscribe: (listener: () => void) => () => void): void {
  useEffect(() => {
    let timer: number | null = null;
    const plan = (ms: number) => {
      if (timer !== null) window.clearTimeout(timer);
      timer = window.setTimeout(() => void saveNow(actions), ms);
    };
    let last = actions.get().save;
    const stop = subscribe(() => {
      const { save } = actions.get();
      if (save === last) return;
      last = save;
      if (save.kind === 'changed') plan(quietMs);
      if (save.kind === 'failed') plan(retryMs);
    });
    const warn = (event: BeforeUnloadEvent) => {
      if (actions.get().save.kind === 'saved') return;
      void saveNow(actions);
      event.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => {
      stop();
      window.removeEventListener('beforeunload', warn);
      if (timer !== null) window.clearTimeout(timer);
      void saveNow(actions);
    };
  }, [actions, subscribe]);
}

/** Saves what is on screen, if it is not saved, and waits for it. */
export async function saveNow(actions: BenchActions): Promise<void> {
  for (;;) {
    const running = saving.get(actions);
    if (running) {
      // Another save may begin while this one waits: what is to be done is looked at afresh.
      await running;
      continue;
    }
    const { save } = actions.get();
    if (save.kind === 'saved' || save.kind === 'conflict') return;
    const attempt = saveOnce(actions).finally(() => saving.delete(actions));
    saving.set(actions, attempt);
    await attempt;
    if (actions.get().save.kind === 'failed') return;
  }
}

/** Where there are workers, a document is written by one: a large one takes longer than a frame. */
function write(document: JobDocument): Blob | Promise<Blob> {
  return typeof Worker === 'undefined' ? documentBlob(document) : writeInWorker(document);
}

async function saveOnce(actions: BenchActions): Promise<void> {
  const state = actions.get();
  const document = jobOf(state);
  const edit = state.history.past.at(-1)?.name ?? 'undo';
  actions.set({ save: { kind: 'saving' } });
  try {
    const { number } = await api.saveJob(state.jobId, state.version, edit, await write(document));
    const unchanged = jobOf(actions.get()) === document;
    actions.set({ version: number, savedDocument: document, save: { kind: unchanged ? 'saved' : 'changed' } });
  } catch (error) {
    if (error instanceof Refusal && error.code === 'saved-elsewhere') {
      actions.set({ save: { kind: 'conflict', latest: (error.details as { latest: number }).latest } });
    } else {
      actions.set({ save: { kind: 'failed', message: sentenceOf(error) } });
    }
  }
}
