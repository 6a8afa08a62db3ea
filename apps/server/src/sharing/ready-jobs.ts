import type { LeftOutReason } from '@lambent/contracts';
import { apartReason } from '@lambent/core/sharing';
import type { DataSource } from 'typeorm';
import type { EstimateBasis } from '../desk/estimate-basis.ts';
import { jobWithoutDrawing, type StoredSettings } from '../jobs/pack.ts';

/** So many jobs share sheets at most; those that are wanted first go first. */
const mostTogether = 40;
/** As many jobs that are ready are looked at. */
const mostReady = 500;

/** A job that is ready to be burnt, and lies on no shared sheets yet. */
export interface ReadyJob {
  readonly id: string;
  readonly title: string;
  readonly whose: string;
  readonly version: number;
  readonly copies: number;
  /** What all copies take alone, in s; null where that is not worked out. */
  readonly seconds: number | null;
  readonly isCurrent: boolean;
}

/** Jobs that are ready for the same stock on the same machine, with the same lens. */
export interface ReadyGroup {
  readonly machineId: string;
  readonly materialId: string;
  readonly jobs: readonly ReadyJob[];
  readonly leftOut: readonly (ReadyJob & { readonly why: LeftOutReason })[];
}

interface Row {
  id: string;
  title: string;
  whose: string;
  version: number;
  machineId: string;
  materialId: string;
  /** As JSON. */
  settings: string;
  copies: number | null;
  estimatedVersion: number | null;
  materialIds: string | null;
  shopHash: string | null;
  seconds: number | null;
  blocks: number | null;
}

/** A group that is still being gathered. */
type Gathered = Omit<ReadyGroup, 'jobs' | 'leftOut'> & { jobs: ReadyJob[]; leftOut: ReadyGroup['leftOut'][number][] };

/** What is ready, in groups of two jobs or more; what is wanted first comes first. */
export async function readyGroups(database: DataSource, basis: EstimateBasis): Promise<ReadyGroup[]> {
  const rows: Row[] = await database.query(
    `SELECT jobs.id, jobs.title, jobs.whose, jobs.version, jobs.machineId, jobs.materialId, versions.settings,
       (SELECT json_extract(wish, '$.copies') FROM sendings WHERE sendings.jobId = jobs.id LIMIT 1) AS copies,
       estimates.version AS estimatedVersion, estimates.materialIds, estimates.shopHash, estimates.seconds,
       estimates.blocks
     FROM jobs
     JOIN versions ON versions.jobId = jobs.id AND versions.number = jobs.version
     LEFT JOIN estimates ON estimates.jobId = jobs.id
     WHERE jobs.deletedAt IS NULL AND jobs.state = 'ready' AND jobs.materialId IS NOT NULL
       AND jobs.id NOT IN (SELECT jobId FROM parts_in_place)
       AND jobs.id NOT IN (SELECT sharedJobId FROM parts_in_place)
     ORDER BY jobs.wantedBy IS NULL, jobs.wantedBy, jobs.stateSince, jobs.changed LIMIT ${mostReady}`,
  );
  const groups = new Map<string, Gathered>();
  for (const row of rows) {
    const { machineId, materialId } = row;
    const document = jobWithoutDrawing(JSON.parse(row.settings) as StoredSettings);
    const name = JSON.stringify([machineId, materialId, document.lensId]);
    const group: Gathered = groups.get(name) ?? { machineId, materialId, jobs: [], leftOut: [] };
    groups.set(name, group);
    const isCurrent = basis.isCurrent(row);
    const { id, title, whose, version, copies, seconds, blocks } = row;
    const times = copies ?? 1;
    const alone = isCurrent && seconds !== null ? seconds * times : null;
    const job: ReadyJob = { id, title, whose, version, copies: times, seconds: alone, isCurrent };
    const why = apartReason(document) ?? (isCurrent && (blocks ?? 0) > 0 ? 'findings' : null);
    if (why) group.leftOut.push({ ...job, why });
    else if (group.jobs.length >= mostTogether) group.leftOut.push({ ...job, why: 'many' });
    else group.jobs.push(job);
  }
  return [...groups.values()].filter(({ jobs }) => jobs.length > 1);
}
