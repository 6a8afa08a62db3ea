import { blocks, type Finding } from '@lambent/core/checks';
import type { JobDocument } from '@lambent/core/document';
import type { Point } from '@lambent/core/geometry';
import type { BurnPlan, PiecesOfSize } from '@lambent/core/plan';
import type { Planned } from '../../workers/bench.worker.ts';
import type { View } from '../bed/view.ts';
import { type DocumentNews, type DocumentState, jobOf } from './document.ts';
import type { Change } from './slice.ts';

/** What a plan is of. */
export interface PlanSubject {
  readonly document: JobDocument;
  readonly runId: string;
  /** Where the head stood, in bed mm, for a run that lands there. */
  readonly head: Point | null;
}

/** What planning came to last: a plan with its findings, or why there is none. */
export interface Planning {
  readonly answer: Planned | null;
  readonly trouble: string | null;
  /** What it is of; null before the first one. */
  readonly subject: PlanSubject | null;
  /** It is by a shop that is another one now. */
  readonly isOutdated: boolean;
}

/** Draws on the bed. @param view what the page shows of it */
export type DrawnOver = (context: CanvasRenderingContext2D, view: View) => void;

/** The burn as it was planned last, and the preview of it. */
export interface PlanState {
  planning: Planning;
  /** How much of the next plan is worked out, from 0 to 1; null while none takes long. */
  plannedShare: number | null;
  /** Seconds into the plan at which the preview stands; null while there is none. */
  previewS: number | null;
  /** Whether the preview shows where the head goes unlit. */
  showsUnlit: boolean;
  /** Draws over the bed what the open drawer shows there. */
  drawnOver: DrawnOver | null;
}

export const nothingPlanned: PlanState = {
  planning: { answer: null, trouble: null, subject: null, isOutdated: false },
  plannedShare: null,
  previewS: null,
  showsUnlit: false,
  drawnOver: null,
};

/** @returns what changes when the job does: there is no preview of another plan, and no plan by another shop */
export function planAfter({ planning }: PlanState, { kind }: DocumentNews): Partial<PlanState> {
  return kind === 'other-shop' ? { planning: { ...planning, isOutdated: true } } : { previewS: null };
}

/** What changes the slice of the plan. */
export function planActions(change: Change<PlanState>) {
  return {
    showPlan: (subject: PlanSubject, answer: Planned) =>
      change({ planning: { answer, trouble: null, subject, isOutdated: false }, plannedShare: null }),
    failPlan: (subject: PlanSubject, trouble: string) =>
      change({ planning: { answer: null, trouble, subject, isOutdated: false }, plannedShare: null }),
    /** Says how far the next plan has come; null when it is given up. */
    tellPlanned: (share: number | null) => change({ plannedShare: share }),
    preview: (seconds: number | null) => change({ previewS: seconds }),
    showUnlit: (showsUnlit: boolean) => change({ showsUnlit }),
    drawOver: (drawnOver: DrawnOver | null) => change({ drawnOver }),
  };
}

/** The plan at hand; of the document before while a new one is worked out. */
export function planOf({ planning }: PlanState): BurnPlan | null {
  return planning.answer?.plan ?? null;
}

/** What falls out by the plan at hand, by size; null where there is no plan. */
export function pieceSizesOf({ planning }: PlanState): readonly PiecesOfSize[] | null {
  return planning.answer?.pieces ?? null;
}

/** The findings that came with the plan at hand. */
export function findingsOf({ planning }: PlanState): readonly Finding[] | null {
  return planning.answer?.findings ?? null;
}

/** Whether the job cannot be sent: it has no plan yet, or something wrong was found. */
export function isBlocked(state: PlanState): boolean {
  const findings = findingsOf(state);
  return findings === null || blocks(findings);
}

/** Whether the plan at hand is that of the job and the run on screen. */
export function isPlanned(state: DocumentState & PlanState): boolean {
  const { subject, isOutdated } = state.planning;
  return (
    !isOutdated && subject !== null && subject.document === jobOf(state) && subject.runId === state.prepared.run.id
  );
}

/** When a step of a plan begins, in seconds. */
export function beginsAt({ steps }: BurnPlan, stepId: string): number {
  let seconds = 0;
  for (const step of steps) {
    if (step.id === stepId) return seconds;
    seconds += step.timeS;
  }
  return seconds;
}
