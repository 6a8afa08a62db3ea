import type { RunAnswer } from '@lambent/contracts';
import type { RunEntity } from './run.entities.ts';

/** A run of the record as it is answered. */
export function answerOf(run: RunEntity, jobTitle: string, hasPicture: boolean): RunAnswer {
  const { id, jobId, version, jobRunId, jobRunName, machineId, status } = run;
  const { reason, programHash, lines, doneLine, plannedS, machineS, taken, by, basis } = run;
  const { afterRunId, fromLine } = run;
  return {
    id,
    jobId,
    jobTitle,
    version,
    jobRunId,
    jobRunName,
    machineId,
    status,
    reason,
    startedAt: run.startedAt.toISOString(),
    endedAt: run.endedAt?.toISOString() ?? null,
    programHash,
    lines,
    doneLine,
    plannedS,
    machineS,
    hasPicture,
    taken,
    by,
    materials: [...new Set(basis?.layers.flatMap(({ material }) => material ?? []))],
    afterRunId,
    fromLine,
  };
}
