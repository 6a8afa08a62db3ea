import type { Item } from '../document/item.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { countOf, type Finding } from './finding.ts';
import { parkedItems } from './parked.ts';

/** What whoever burns a job should know before it is sent. */
export interface BeforeSend {
  /** Items on layers of notes that say something. */
  readonly notes: readonly Item[];
  /** What lies beside the bed and stays there, in a sentence; null where nothing does. */
  readonly parked: string | null;
  /** What was decided where a file did not say, and is not accepted yet. */
  readonly undecided: readonly Finding[];
  /** What the operator accepts. */
  readonly accepted: readonly Finding[];
}

/** Gathers it from a job and what the checks found in it. */
export function beforeSend(prepared: PreparedJob, findings: readonly Finding[]): BeforeSend {
  const { layers } = prepared;
  const parked = parkedItems(prepared);
  const onNotes = layers.flatMap(({ layer, placed }) => (layer.operation === 'note' ? placed : []));
  return {
    notes: onNotes.flatMap(({ item }) => (item.name || item.shape.kind === 'text' ? [item] : [])),
    parked:
      parked.length > 0
        ? `${countOf(parked.length, 'part is', 'parts are')} parked beside the bed and ${parked.length === 1 ? 'does' : 'do'} not burn.`
        : null,
    undecided: findings.filter(({ code, accepted }) => code === 'decided' && accepted === undefined),
    accepted: findings.filter(({ accepted }) => accepted !== undefined),
  };
}

/** What an item on a layer of notes says. */
export function noteText({ name, shape }: Item): string {
  return shape.kind === 'text' ? shape.text.words : (name ?? '');
}
