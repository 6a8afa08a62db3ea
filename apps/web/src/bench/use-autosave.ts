import type { JobDocument } from '@lambent/core/document';
import { useEffect } from 'react';
import { api, cutName, Refusal, sentenceOf } from '../api.ts';
import { holdSession } from '../unsaved/sessions.ts';
import { dropUnsaved } from '../unsaved/unsaved-store.ts';
import { documentBlob } from '../workers/document-blob.ts';
import { written } from '../workers/work.ts';
import type { BenchActions, BenchState } from './state/bench-state.ts';
import { jobOf, type SaveTrouble } from './state/document.ts';

/** What is drawn is kept in the browser so soon after the last edit, and saved so soon. */
const keepMs = 100;
const quietMs = 500;
const retryMs = 4000;
const saving = new WeakMap<BenchActions, Promise<void>>();

/**
 * Saves every edit as a version of its own kind: half a second after the last one. Until the server has it, it is kept in
 * the browser, from where it is saved when the page is opened again (unsaved/send-unsaved.ts).
 */
export function useAutosave(actions: BenchActions, subscribe: (listener: () => void) => () => void): void {
  useEffect(() => {
    let timer: number | null = null;
    let keeping: number | null = null;
    const release = holdSession(actions.get().session);
    const plan = (ms: number) => {
      if (timer !== null) window.clearTimeout(timer);
      timer = window.setTimeout(() => void saveNow(actions), ms);
    };
    const keepSoon = () => {
      if (keeping !== null) window.clearTimeout(keeping);
      keeping = window.setTimeout(() => void bodyOf(actions.get()).catch(() => {}), keepMs);
    };
    let last = actions.get();
    const stop = subscribe(() => {
      const now = actions.get();
      if (now.save !== last.save) {
        if (now.save.kind === 'changed') plan(quietMs);
        if (now.save.kind === 'failed') plan(retryMs);
      }
      if (now.save.kind === 'saved') {
        if (keeping !== null) window.clearTimeout(keeping);
        if (last.save.kind !== 'saved') void letGo(actions);
      } else if (jobOf(now) !== jobOf(last)) keepSoon();
      last = now;
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
      if (keeping !== null) window.clearTimeout(keeping);
      void saveNow(actions)
        .then(() => letGo(actions))
        .finally(release);
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
    const { kind } = actions.get().save;
    if (kind !== 'changed' && kind !== 'failed') return;
    const attempt = saveOnce(actions).finally(() => saving.delete(actions));
    saving.set(actions, attempt);
    await attempt;
    if (actions.get().save.kind === 'failed') return;
  }
}

/** The body of a save that was written last, by its Bench: it is often asked for twice. */
const bodies = new Map<string, { document: JobDocument; version: number; body: Promise<Blob> }>();

/** The body of a save; kept in the browser as well. A large one takes longer than a frame, so a worker writes it. */
function bodyOf(state: BenchState): Promise<Blob> {
  const { session, jobId, title, lastEdit } = state;
  const { version } = state.stored;
  const document = jobOf(state);
  if (typeof Worker === 'undefined') return Promise.resolve(documentBlob(document));
  const last = bodies.get(session);
  if (last?.document === document && last.version === version) return last.body;
  const body = written(document, { session, jobId, title, base: version, edit: cutName(lastEdit), at: Date.now() });
  body.catch(() => bodies.delete(session));
  bodies.set(session, { document, version, body });
  return body;
}

/** What the server has is not kept in the browser any longer: saved, or undone back to what was saved. */
async function letGo(actions: BenchActions): Promise<void> {
  const { session } = actions.get();
  // What is just being kept is waited for, or it would be kept after it was let go.
  await bodies.get(session)?.body.catch(() => {});
  if (actions.get().save.kind !== 'saved') return;
  bodies.delete(session);
  await dropUnsaved(session).catch(() => {});
}

async function saveOnce(actions: BenchActions): Promise<void> {
  const state = actions.get();
  const document = jobOf(state);
  actions.startSave();
  try {
    const { jobId, stored, lastEdit } = state;
    const { number, savedAt } = await api.saveJob(jobId, stored.version, lastEdit, await bodyOf(state));
    actions.endSave({ version: number, savedAt, document });
  } catch (error) {
    actions.failSave(troubleOf(error));
  }
}

function troubleOf(error: unknown): SaveTrouble {
  const message = sentenceOf(error);
  if (!(error instanceof Refusal)) return { kind: 'failed', message };
  if (error.code === 'saved-elsewhere') {
    return { kind: 'conflict', latest: (error.details as { latest: number }).latest };
  }
  if (error.code === 'job-deleted') return { kind: 'deleted' };
  return { kind: error.isFinal ? 'refused' : 'failed', message };
}
