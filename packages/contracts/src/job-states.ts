/*
 * The words of the Desk. They stand apart from the requests, so that a page that only says them loads no checks.
 */

/** Where a job stands, in the order in which it goes through the shop. */
export const jobStates = [
  'came in',
  'being prepared',
  'quoted',
  'ready',
  'on a machine',
  'burnt',
  'handed over',
  'put away',
] as const;
export type JobState = (typeof jobStates)[number];

/** Whom a job waits for: an operator, who sent it, a machine; or nobody. */
export type WaitsFor = 'operator' | 'sender' | 'machine' | 'nobody';

/** Whom a job in a state waits for. */
export const waitsFor: Readonly<Record<JobState, WaitsFor>> = {
  'came in': 'operator',
  'being prepared': 'operator',
  quoted: 'sender',
  ready: 'machine',
  'on a machine': 'machine',
  burnt: 'sender',
  'handed over': 'nobody',
  'put away': 'nobody',
};

/** Whether a job in a state is still to be burnt, and can be given to a machine. */
export function isToBurn(state: JobState): boolean {
  return state !== 'burnt' && waitsFor[state] !== 'nobody';
}

/** Whether a job in a state is still to be burnt, and on no machine yet. */
export function isBeforeBurning(state: JobState): boolean {
  return isToBurn(state) && state !== 'on a machine';
}

/** Whose answer a job waits for, once the workshop and its sender write to each other; null for nobody's. */
export type Awaits = 'workshop' | 'sender' | null;

/** In which a job is promised and not finished yet: past its day, it is late. */
export const openStates: readonly JobState[] = ['came in', 'being prepared', 'quoted', 'ready', 'on a machine'];

/** What the Desk shows: all but what was put away, what waits for an operator, or what is in one state. */
export const deskShows = ['all', 'wants you', ...jobStates] as const;
export type DeskShow = (typeof deskShows)[number];

/** What jobs are sorted by. */
export const deskSorts = ['changed', 'title', 'whose', 'material', 'time', 'price', 'wanted by', 'state'] as const;
export type DeskSort = (typeof deskSorts)[number];

/** As many jobs are on a page of the Desk, and as many can be asked for at once. */
export const deskPageSize = 50;
export const mostAtOnce = 500;
