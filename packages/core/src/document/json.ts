import { objectFrom } from '../schema/schema.ts';
import { record } from '../schema/structures.ts';
import { drawingSchema } from './drawing-schema.ts';
import type { Drawing, Item } from './item.ts';
import { type JobDocument, jobSettingsSchema } from './job.ts';
import { NotADrawing, readBy } from './not-a-drawing.ts';
import { firstRun } from './run.ts';
import type { Shape } from './shape.ts';

/** The media type of a job's JSON, by which it is told from other JSON on the wire. */
export const jobMediaType = 'application/vnd.lambent.job+json';

/**
 * The version of the document that is written. It goes up when what was there before means something else, or is
 * somewhere else; a new field alone is kept by builds that do not know it.
 */
export const documentVersion = 1;

/** How documents of earlier versions become what the next one has, by the version that it brings them to. */
const migrations: readonly {
  readonly to: number;
  readonly name: string;
  readonly migrate: (json: Record<string, unknown>) => Record<string, unknown>;
}[] = [
  {
    to: 1,
    name: 'layers that are left out belong to a run',
    migrate: ({ off, ...json }) =>
      json.runs === undefined ? { ...json, runs: [{ ...firstRun, off: off ?? [] }] } : json,
  },
];

/** A shape as plain JSON: besides its kind, the fields of a shape of that kind. */
export interface ShapeJson {
  readonly kind: Shape['kind'];
  readonly [field: string]: unknown;
}

/** A job as plain JSON: the same but for paths, whose verbs are a string such as `MLCZ`. */
export type JobJson = Omit<JobDocument, 'drawing'> & {
  readonly version: number;
  readonly drawing: {
    readonly items: readonly (Omit<Item, 'shape'> & { readonly shape: ShapeJson })[];
    readonly groups: Drawing['groups'];
  };
};

const jobSchema = record({ ...jobSettingsSchema.fields, drawing: drawingSchema });

/** A job as it is stored, with the version of its form. */
export function jobToJson(job: JobDocument): JobJson {
  return { ...(jobSchema.write?.(job) as JobJson), version: documentVersion };
}

/**
 * Builds a job from JSON, checking all of it. What a newer build has put into it is kept.
 * @throws NotADrawing naming the first thing that is wrong
 */
export function jobFromJson(json: unknown): JobDocument {
  const { version = 0, ...said } = readBy({ read: objectFrom }, json, 'job');
  if (typeof version !== 'number' || version > documentVersion) {
    throw new NotADrawing(
      `job: version ${String(version)} was written by a later Lambent; this one knows versions up to ${documentVersion}`,
    );
  }
  const current = migrations.filter(({ to }) => to > version).reduce((older, { migrate }) => migrate(older), said);
  return readBy(jobSchema, current, 'job');
}
