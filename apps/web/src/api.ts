import type {
  BookChange,
  BookTaken,
  BurntPictureAnswer,
  DeletedJob,
  ErrorAnswer,
  FitDto,
  FontAnswer,
  JobAnswer,
  JobCard,
  KerfDto,
  MachineCommand,
  MachineState,
  OffcutDto,
  PutBackDto,
  RunAnswer,
  SettingsDto,
  StartRunDto,
  VersionAnswer,
} from '@lambent/contracts';
import type { ColourKey } from '@lambent/core/colours';
import type { Machine } from '@lambent/core/machine';
import type { Material, Recipe } from '@lambent/core/recipes';

/** What the server said no to, in its own sentence. */
export class Refusal extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly details?: unknown,
    /** As HTTP has it; 0 where the server did not answer. */
    readonly status = 0,
  ) {
    super(message);
  }

  /** Whether asking again would be answered the same: what was sent is at fault, and not the moment. */
  get isFinal(): boolean {
    return this.status >= 400 && this.status < 500 && ![408, 425, 429, 499].includes(this.status);
  }
}

async function ask<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await answered(method, path, body);
  return response.status === 204 ? (undefined as T) : ((await response.json()) as T);
}

/** @throws Refusal where the server does not answer, or refuses */
async function answered(method: string, path: string, body?: unknown): Promise<Response> {
  const raw = body instanceof Blob;
  const type = raw ? body.type || 'application/octet-stream' : 'application/json';
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: body === undefined ? {} : { 'Content-Type': type },
      body: body === undefined ? undefined : raw ? body : JSON.stringify(body),
    });
  } catch {
    throw new Refusal('no-server', 'The server does not answer. Is Lambent still running?');
  }
  if (!response.ok) {
    const answer = (await response.json().catch(() => null)) as ErrorAnswer | null;
    throw new Refusal(
      answer?.error.code ?? 'failed',
      answer?.error.message ?? `The server answered ${response.status}.`,
      answer?.error.details,
      response.status,
    );
  }
  return response;
}

/** The longest name of an edit, and the longest title, that the server takes. */
const longestName = 120;

/** A name as the server takes it. */
export function cutName(name: string): string {
  return name.length <= longestName ? name : `${name.slice(0, longestName - 1)}…`;
}

export const api = {
  jobs: () => ask<JobCard[]>('GET', '/api/jobs'),
  job: (id: string) => ask<JobAnswer>('GET', `/api/jobs/${id}`),
  /** A job, or one of its versions, as the server wrote it: a `JobAnswer` in JSON. */
  jobJson: async (id: string, version?: number): Promise<ArrayBuffer> =>
    (await answered('GET', `/api/jobs/${id}${version === undefined ? '' : `/versions/${version}`}`)).arrayBuffer(),
  createJob: (title: string, machineId: string) => ask<JobAnswer>('POST', '/api/jobs', { title, machineId }),
  deletedJobs: () => ask<DeletedJob[]>('GET', '/api/jobs/deleted'),
  deleteJob: (id: string) => ask<void>('DELETE', `/api/jobs/${id}`),
  takeJobBack: (id: string) => ask<void>('POST', `/api/jobs/${id}/take-back`),
  renameJob: (id: string, title: string) => ask<void>('PATCH', `/api/jobs/${id}`, { title }),
  saveJob: (id: string, base: number, edit: string, document: Blob) =>
    ask<VersionAnswer>(
      'PUT',
      `/api/jobs/${id}?${new URLSearchParams({ base: String(base), edit: cutName(edit) })}`,
      document,
    ),
  copyJob: (id: string, title: string, document: Blob) =>
    ask<JobAnswer>('POST', `/api/jobs/${id}/copies?${new URLSearchParams({ title: cutName(title) })}`, document),
  keepOriginal: (id: string, file: File) =>
    ask<{ id: number }>('POST', `/api/jobs/${id}/originals?name=${encodeURIComponent(file.name)}`, new Blob([file])),
  original: async (id: string, original: number): Promise<Blob> => {
    const response = await fetch(`/api/jobs/${id}/originals/${original}`);
    if (!response.ok) throw new Refusal('no-original', 'The file as it was brought in is no longer there.');
    return response.blob();
  },
  keepPicture: (id: string, bytes: Uint8Array) =>
    ask<void>('PUT', `/api/pictures/${id}`, new Blob([bytes.slice()], { type: 'application/octet-stream' })),
  settings: () => ask<SettingsDto>('GET', '/api/settings'),
  settle: (settings: SettingsDto) => ask<SettingsDto>('PUT', '/api/settings', settings),
  fonts: () => ask<FontAnswer[]>('GET', '/api/fonts'),
  loadFont: (file: File) => ask<FontAnswer>('POST', '/api/fonts', new Blob([file])),
  versions: (id: string) => ask<VersionAnswer[]>('GET', `/api/jobs/${id}/versions`),
  machines: () => ask<Machine[]>('GET', '/api/machines'),
  materials: () => ask<Material[]>('GET', '/api/materials'),
  addMaterial: (by: string, material: Partial<Material>) => ask<Material>('POST', '/api/materials', { by, material }),
  changeMaterial: (by: string, { version, ...material }: Material) =>
    ask<Material>('PUT', `/api/materials/${material.id}`, { by, version, material }),
  addRecipe: (by: string, materialId: string, recipe: Recipe) =>
    ask<Material>('POST', `/api/materials/${materialId}/recipes`, { by, recipe }),
  changeRecipe: (by: string, { id, version, ...recipe }: Recipe) =>
    ask<Material>('PUT', `/api/recipes/${id}`, { by, version, recipe }),
  bookHistory: (materialId: string) => ask<BookChange[]>('GET', `/api/materials/${materialId}/history`),
  undoChange: (by: string, id: number) => ask<Material>('POST', `/api/book/changes/${id}/undo`, { by }),
  takeBookIn: (by: string, format: 'json' | 'csv', take: 'good' | 'all-or-nothing', file: Blob) =>
    ask<BookTaken>('POST', `/api/book/take-in?${new URLSearchParams({ by, format, take })}`, new Blob([file])),
  keepKerf: (materialId: string, kerf: KerfDto) => ask<Material>('PUT', `/api/materials/${materialId}/kerf`, kerf),
  keepFit: (materialId: string, fit: FitDto) => ask<Material>('PUT', `/api/materials/${materialId}/fit`, fit),
  keys: () => ask<ColourKey[]>('GET', '/api/colour-keys'),
  command: (machineId: string, command: MachineCommand) =>
    ask<MachineState>('POST', `/api/machines/${machineId}/commands`, { command }),
  runs: (jobId?: string) => ask<RunAnswer[]>('GET', `/api/runs${jobId ? `?job=${jobId}` : ''}`),
  burntPicture: (runId: string) => ask<BurntPictureAnswer>('GET', `/api/runs/${runId}/picture`),
  putSheetBack: (runId: string, wanted: PutBackDto) =>
    ask<RunAnswer>('POST', `/api/runs/${runId}/stock/put-back`, wanted),
  keepOffcut: (runId: string, wanted: OffcutDto) => ask<RunAnswer>('POST', `/api/runs/${runId}/stock/offcuts`, wanted),
  startRun: (jobId: string, wanted: StartRunDto) => ask<RunAnswer>('POST', `/api/jobs/${jobId}/runs`, wanted),
  addKey: (key: ColourKey) => ask<ColourKey>('POST', '/api/colour-keys', key),
  changeKey: (key: ColourKey) => ask<ColourKey>('PUT', `/api/colour-keys/${encodeURIComponent(key.id)}`, key),
  removeKey: (id: string) => ask<void>('DELETE', `/api/colour-keys/${encodeURIComponent(id)}`),
  orderKeys: (ids: readonly string[]) => ask<ColourKey[]>('PUT', '/api/colour-keys/order', { ids }),
};

/** What went wrong, as a sentence for whoever asked. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
