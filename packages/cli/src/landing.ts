import type { JobDocument } from '@lambent/core/document';
import { changeRun, setMark } from '@lambent/core/edits';
import type { Point } from '@lambent/core/geometry';
import { fromMachine, type Machine } from '@lambent/core/machine';
import { Unusable } from './unusable.ts';

export interface LandingOptions {
  /** `head X,Y`, `mark X,Y` or `sheet`, each with the point that lands. */
  at?: string[];
  /** `X,Y=X,Y` twice: where a mark is drawn, and where it was touched. */
  marks?: string[];
  scaled?: boolean;
}

/** The nine points of a run that can land, as shares of its width and height. */
const points: Readonly<Record<string, readonly [u: number, v: number]>> = {
  'top-left': [0, 0],
  top: [0.5, 0],
  'top-right': [1, 0],
  left: [0, 0.5],
  middle: [0.5, 0.5],
  right: [1, 0.5],
  'bottom-left': [0, 1],
  bottom: [0.5, 1],
  'bottom-right': [1, 1],
};

/**
 * A job whose run lands where the words say, and where the head stands then.
 * @param runId the run that lands
 * @throws Unusable where the words make no sense, or a run is to land at the head and nobody says where that stands
 */
export function landedBy(
  job: JobDocument,
  runId: string,
  machine: Machine,
  { at, marks, scaled = false }: LandingOptions,
): { job: JobDocument; head: Point | null } {
  if (at && marks) throw new Unusable('A run lands in one way: give --at or --marks, and not both.');
  const land = (landing: JobDocument['runs'][number]['landing']) => changeRun(job, runId, { landing });
  if (marks) {
    if (marks.length !== 2) throw new Unusable('--marks takes two marks, such as 10,10=12,11 90,10=92,11.');
    return {
      job: land({ kind: 'marks', marks: marks.map((word) => markFrom(word, machine)), isScaled: scaled }),
      head: null,
    };
  }
  if (scaled) throw new Unusable('--scaled goes with --marks.');
  if (at) {
    const [kind, ...rest] = at;
    const place = kind === 'sheet' ? null : placeFrom(rest.shift(), machine, `--at ${kind}`);
    const [u, v] = pointFrom(rest);
    if (kind === 'sheet') return { job: land({ kind: 'stock', u, v, inset: 0 }), head: null };
    if (kind === 'head') return { job: land({ kind, u, v }), head: place };
    if (kind === 'mark') return { job: setMark(land({ kind, u, v }), place), head: null };
    throw new Unusable(`--at takes head, mark or sheet, and not “${kind}”.`);
  }
  const run = job.runs.find(({ id }) => id === runId);
  if (run?.landing.kind === 'head') {
    throw new Unusable(`${run.name} lands at the head: say where that stands, such as --at head 120,80.`);
  }
  return { job, head: null };
}

function pointFrom(words: readonly string[]): readonly [u: number, v: number] {
  const [word = 'top-left', ...more] = words;
  const point = points[word];
  if (point && more.length === 0) return point;
  const names = Object.keys(points).join(', ');
  throw new Unusable(`--at ends with the point of the run that lands: ${names}; and not “${words.join(' ')}”.`);
}

function markFrom(word: string, machine: Machine) {
  const [drawn, touched, ...more] = word.split('=');
  if (more.length > 0 || touched === undefined) {
    throw new Unusable(`A mark is where it is drawn and where it was touched, such as 10,10=12,11, and not “${word}”.`);
  }
  const { x, y } = placeFrom(drawn, machine, '--marks');
  return { x, y, onBed: placeFrom(touched, machine, '--marks') };
}

/** A place in mm in the machine's own frame, as its display shows it; on the bed. */
function placeFrom(word: string | undefined, machine: Machine, option: string): Point {
  const [, x, y] = /^([-+]?\d+(?:\.\d+)?),([-+]?\d+(?:\.\d+)?)$/.exec(word ?? '') ?? [];
  if (y === undefined)
    throw new Unusable(`${option} takes a place in mm, such as 120,80, and not “${word ?? 'nothing'}”.`);
  return fromMachine(machine, Number(x), Number(y));
}
