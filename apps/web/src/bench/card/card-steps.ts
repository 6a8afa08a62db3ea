import { cardOfLayer } from '@lambent/core/document';
import type { Operation } from '@lambent/core/operations';
import type { PlanStep } from '@lambent/core/plan';
import { counted } from '../../ui/counted.ts';
import { t } from '../../words/words.ts';

/** A step of the plan, or several of one test card that burn after each other: they are shown as one. */
export type ShownStep =
  | { readonly kind: 'step'; readonly step: PlanStep }
  | { readonly kind: 'card'; readonly cardId: string; readonly steps: readonly PlanStep[]; readonly timeS: number };

/** A plan's steps as they are listed: all cells of a test card as one. */
export function shownSteps(steps: readonly PlanStep[]): ShownStep[] {
  const out: ShownStep[] = [];
  for (const step of steps) {
    const cardId = cardOfLayer(step.layerId);
    const last = out.at(-1);
    if (cardId === null) out.push({ kind: 'step', step });
    else if (last?.kind === 'card' && last.cardId === cardId) {
      out[out.length - 1] = { ...last, steps: [...last.steps, step], timeS: last.timeS + step.timeS };
    } else out.push({ kind: 'card', cardId, steps: [step], timeS: step.timeS });
  }
  return out;
}

const isCell = ({ layerId }: PlanStep) => !layerId.endsWith(' words');

/** What a card's cells are burnt with. */
export function cardOperation(steps: readonly PlanStep[]): Operation {
  return (steps.find(isCell) ?? steps[0]).operation;
}

/** What steps of a card are called together. */
export function cardStepsTitle(steps: readonly PlanStep[]): string {
  const cells = steps.filter(isCell).length;
  const words = cells < steps.length ? 'words' : null;
  return t('Test card · {{filter}}', {
    filter: [words, cells > 0 ? counted(cells, 'cell') : null].filter(Boolean).join(', '),
  });
}
