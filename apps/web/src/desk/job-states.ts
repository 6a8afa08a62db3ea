import type { JobCard } from '@lambent/contracts';
import { type DeskShow, isBeforeBurning, type JobState, openStates, waitsFor } from '@lambent/contracts/job-states';
import { whenOf } from '../stores/dates.ts';
import { t } from '../words/words.ts';

/** What of the Desk is shown, as it stands on the screen; a state among them. */
export function nameOfShow(show: DeskShow): string {
  return {
    all: t('All'),
    'wants you': t('Wants you'),
    'came in': t('Came in'),
    'being prepared': t('Being prepared'),
    quoted: t('Quoted'),
    ready: t('Ready'),
    'on a machine': t('On a machine'),
    burnt: t('Burnt'),
    'handed over': t('Handed over'),
    'put away': t('Put away'),
  }[show];
}

/** The colour of the dot before a state; those that wait for the same look alike. */
export function dotOf(state: JobState): string {
  if (state === 'on a machine') return 'bg-flame';
  return { operator: 'bg-warn', sender: 'bg-petrol', machine: 'bg-settled', nobody: 'bg-line' }[waitsFor[state]];
}

/** Whether a job is past the day until which it is wanted. @param today such as 2026-12-24 */
export function isLate({ state, wantedBy }: Pick<JobCard, 'state' | 'wantedBy'>, today: string): boolean {
  return wantedBy !== null && wantedBy < today && openStates.includes(state);
}

/** Where a job waits on the day of its machine. */
interface Waiting {
  /** Of the machine. */
  readonly name: string;
  readonly until: string;
  readonly isLate: boolean;
}

/** What is said below the state of a job: what is wrong with it, or whom it waits for. */
export function sayingOf(
  job: JobCard,
  waiting: Waiting | undefined,
): { readonly text: string; readonly level: 'plain' | 'warns' | 'blocks' } {
  const { state, estimate, whose, awaits } = job;
  if (awaits === 'workshop') return { text: t('A message to answer'), level: 'warns' };
  if (awaits === 'sender') return { text: t('Waits for an answer'), level: 'plain' };
  const isOpen = isBeforeBurning(state);
  if (isOpen && job.itemCount === 0) return { text: t('Nothing drawn yet'), level: 'plain' };
  // How it lies there, and what is wrong with that, is told of the sheets.
  if (isOpen && job.sharedOn)
    return { text: t('With others: {{title}}', { title: job.sharedOn.title }), level: 'plain' };
  if (isOpen && estimate && estimate.blocks > 0)
    return { text: t('Findings that block it: {{blocks}}', { blocks: estimate.blocks }), level: 'blocks' };
  if (isOpen && estimate && estimate.warns > 0)
    return { text: t('Findings to look at: {{warns}}', { warns: estimate.warns }), level: 'warns' };
  if (isOpen && waiting?.isLate)
    return {
      text: t('Late on {{name}}: {{until}}', { name: waiting.name, until: whenOf(waiting.until) }),
      level: 'blocks',
    };
  switch (state) {
    case 'came in':
    case 'being prepared':
      if (!estimate) return { text: t('Being looked at…'), level: 'plain' };
      return { text: t('Could be burnt as it is'), level: 'plain' };
    case 'quoted':
      return { text: whose ? t('Waits for {{whose}}', { whose }) : t('Waits for a yes'), level: 'plain' };
    case 'ready':
      return waiting
        ? { text: t('{{name}}, until {{until}}', { name: waiting.name, until: whenOf(waiting.until) }), level: 'plain' }
        : { text: t('Waits for a machine'), level: 'plain' };
    case 'on a machine':
      return { text: t('Burns, or is held'), level: 'plain' };
    case 'burnt':
      return { text: whose ? t('For {{whose}} to fetch', { whose }) : t('To be fetched'), level: 'plain' };
    default:
      return { text: '', level: 'plain' };
  }
}
