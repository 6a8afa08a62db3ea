import { api } from '../api.ts';
import { offerFiles, take } from '../bench/arriving/arriving.ts';
import { openWholeJob } from '../bench/open-whole-job.ts';
import { benchActions, createBenchStore } from '../bench/state/bench-state.ts';
import { jobOf } from '../bench/state/document.ts';
import { t } from '../words/words.ts';
import { documentBlob } from '../workers/document-blob.ts';
import { titleFrom } from './files-of-drop.ts';

/** What became of a file: the job that was made of it, or why none was. */
export type FileEnd = { readonly jobId: string } | { readonly refusal: string };

/**
 * Makes a job of a file, read and placed as the Bench would at first. Where nothing could be read, no job is kept.
 * @throws Refusal where the job cannot be made or saved
 */
export async function jobFromFile(file: File, machineId: string, materialId?: string): Promise<FileEnd> {
  const { id } = await api.createJob(titleFrom(file.name), machineId, materialId);
  const [opened, machines, materials, keys] = await Promise.all([
    openWholeJob(id),
    api.machines(),
    api.materials(),
    api.keys(),
  ]);
  const actions = benchActions(createBenchStore(opened, { machines, materials, keys }));
  await offerFiles(actions, [file]);
  const { refused } = actions.get().incoming;
  const before = jobOf(actions.get());
  await take(actions);
  const document = jobOf(actions.get());
  if (document === before) {
    await api.deleteJob(id);
    return { refusal: refused?.why ?? t('Nothing in it could be taken.') };
  }
  await api.saveJob(id, opened.version, actions.get().lastEdit, documentBlob(document));
  return { jobId: id };
}
