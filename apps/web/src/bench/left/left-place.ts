import type { Point } from '@lambent/core/geometry';
import { toBed, type View, type ViewFrame } from '../bed/view.ts';
import { type Stage, stageNames } from '../stages/stage.ts';

/** How a job was left in this browser. */
interface LeftPlace {
  readonly stage: Stage;
  /** In pixels to the mm. */
  readonly scale: number;
  /** What was in the middle of the view, in bed mm. */
  readonly middle: Point;
}

const place = 'left';
/** So many jobs are remembered, those that were left last. */
const mostJobs = 100;

/** Remembers at which stage a job was left, and what of the bed was seen. */
export function rememberPlace(jobId: string, stage: Stage, view: View, { width, height }: ViewFrame): void {
  const { [jobId]: _, ...others } = allPlaces();
  const left: LeftPlace = { stage, scale: view.scale, middle: toBed(view, width / 2, height / 2) };
  const last = Object.entries(others).slice(1 - mostJobs);
  try {
    localStorage.setItem(place, JSON.stringify({ ...Object.fromEntries(last), [jobId]: left }));
  } catch {
    // A browser that is full, or keeps nothing, opens the job as new.
  }
}

/** At which stage a job was left; null where that is not known. */
export function leftStage(jobId: string): Stage | null {
  const { stage } = allPlaces()[jobId] ?? {};
  return stageNames.find((name) => name === stage) ?? null;
}

/** The view of a job as it was left, in a frame of another size perhaps; null where that is not known. */
export function leftView(jobId: string, { width, height }: Pick<ViewFrame, 'width' | 'height'>): View | null {
  const { scale, middle } = allPlaces()[jobId] ?? {};
  if (!scale || !middle) return null;
  return { scale, x: width / 2 - middle.x * scale, y: height / 2 - middle.y * scale };
}

function allPlaces(): Record<string, Partial<LeftPlace>> {
  try {
    return (JSON.parse(localStorage.getItem(place) ?? '{}') as Record<string, Partial<LeftPlace>> | null) ?? {};
  } catch {
    return {};
  }
}
