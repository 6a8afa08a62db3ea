import { blocks } from '@lambent/core/checks';
import { hasLive } from '@lambent/core/fit';
import type { BenchState, Stage } from './store.ts';
import { jobOf } from './store.ts';

/** How a stage stands: settled, untouched, or so many things that want attention. */
export type StageState = { kind: 'settled' } | { kind: 'untouched' } | { kind: 'wants'; count: number; grave: boolean };

const settled: StageState = { kind: 'settled' };
const untouched: StageState = { kind: 'untouched' };

function wants(count: number, grave: boolean, otherwise: StageState): StageState {
  return count > 0 ? { kind: 'wants', count, grave } : otherwise;
}

export function stageState(state: BenchState, stage: Stage): StageState {
  const job = jobOf(state);
  const { meaning } = state.prepared;
  const findings = state.planned?.findings ?? [];
  const drawn = job.drawing.items.length > 0;
  switch (stage) {
    case 'bed':
      return job.sheets.length > 0 ? settled : untouched;
    case 'art': {
      const off = findings.filter(({ code }) => code === 'off-bed' || code === 'off-sheet');
      return wants(off.length, blocks(off), drawn ? settled : untouched);
    }
    case 'colours': {
      const open = meaning.paints.filter((use) => use.layerId === null).length;
      return wants(meaning.undecided.length > 0 ? open : 0, true, drawn ? settled : untouched);
    }
    case 'fit':
      return hasLive(job.drawing.items) ? settled : untouched;
    case 'recipe': {
      const open = findings.filter(({ code }) => ['no-recipe', 'beyond-machine', 'forbidden-stock'].includes(code));
      return wants(open.length, true, drawn && job.sheets.length > 0 ? settled : untouched);
    }
    case 'check': {
      const open = findings.filter(({ level }) => level !== 'notes');
      return wants(drawn ? open.length : 0, blocks(open), drawn && state.planned ? settled : untouched);
    }
    case 'burn':
      // Settled once a run has come to its end, which the record tells (`useBurnt`).
      return untouched;
  }
}
